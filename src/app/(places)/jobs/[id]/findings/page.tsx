import { notFound } from 'next/navigation';
import { jobViewIfThere } from '@/server/views/job-view';
import { FindingsPage } from '@/ui/findings/findings-page';
import { PageTitle } from '@/ui/shell/page-title';
import { ShownVersion } from '@/ui/shell/shown-version';

export default async function JobsOwnFindingsPage({ params }: PageProps<'/jobs/[id]/findings'>) {
  const { id } = await params;
  const view = await jobViewIfThere(id);
  if (!view) notFound();
  return (
    <>
      <PageTitle of={`Findings, ${view.job.serial}`} />
      <ShownVersion version={view.job.version} />
      <FindingsPage view={view} />
    </>
  );
}
