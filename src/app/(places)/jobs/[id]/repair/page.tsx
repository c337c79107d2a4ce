import { notFound } from 'next/navigation';
import { jobViewIfThere } from '@/server/views/job-view';
import { RepairPage } from '@/ui/repair/repair-page';
import { PageTitle } from '@/ui/shell/page-title';
import { ShownVersion } from '@/ui/shell/shown-version';

export default async function JobsOwnRepairPage({ params }: PageProps<'/jobs/[id]/repair'>) {
  const { id } = await params;
  const view = await jobViewIfThere(id);
  if (!view) notFound();
  return (
    <>
      <PageTitle of={`Repair, ${view.job.serial}`} />
      <ShownVersion version={view.job.version} />
      <RepairPage view={view} />
    </>
  );
}
