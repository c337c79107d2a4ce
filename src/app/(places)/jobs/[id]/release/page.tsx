import { notFound } from 'next/navigation';
import { jobViewIfThere } from '@/server/views/job-view';
import { ReleasePage } from '@/ui/release/release-page';
import { PageTitle } from '@/ui/shell/page-title';
import { ShownVersion } from '@/ui/shell/shown-version';

export default async function JobReleasePage({ params }: PageProps<'/jobs/[id]/release'>) {
  const { id } = await params;
  const view = await jobViewIfThere(id);
  if (!view) notFound();
  return (
    <>
      <PageTitle of={`Release of ${view.job.serial}`} />
      <ShownVersion version={view.job.version} />
      <ReleasePage view={view} />
    </>
  );
}
