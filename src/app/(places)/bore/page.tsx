import { BorePage } from '@/ui/bore/bore-page';
import { PageTitle } from '@/ui/shell/page-title';

export default function Bore() {
  return (
    <>
      <PageTitle of="Bore" />
      <BorePage />
    </>
  );
}
