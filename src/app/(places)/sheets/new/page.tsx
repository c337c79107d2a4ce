import { airNow } from '@/server/jobs/air-text';
import { SheetForm } from '@/ui/sheets/sheet-form';
import { PageTitle } from '@/ui/shell/page-title';

export default async function NewSheetPage() {
  return (
    <>
      <PageTitle of="Make a sheet" />
      <SheetForm air={await airNow()} />
    </>
  );
}
