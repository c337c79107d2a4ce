import { notFound } from 'next/navigation';
import { jobViewIfThere } from '@/server/views/job-view';
import { JobPage } from '@/ui/job/job-page';
import { PageTitle } from '@/ui/shell/page-title';
import { ShownVersion } from '@/ui/shell/shown-version';

export default async function OneJobPage({ params }: PageProps<'/jobs/[id]'>) {
  const { id } = await params;
  const view = await jobViewIfThere(id);
  if (!view) notFound();
  return (
    <>
      <PageTitle of={view.job.serial} />
      <ShownVersion version={view.job.version} />
      <JobPage view={view} />
    </>
  );
}
