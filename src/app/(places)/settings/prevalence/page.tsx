import { everyPrevalence } from '@/server/shop/prevalences';
import { PrevalencePage } from '@/ui/settings/prevalence-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function HowCommonPage() {
  return (
    <>
      <PageTitle of="How common faults are" />
      <PrevalencePage families={await everyPrevalence()} />
    </>
  );
}
