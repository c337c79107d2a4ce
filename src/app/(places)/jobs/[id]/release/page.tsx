import { notFound } from 'next/navigation';
import { findJob } from '@/data/jobs';
import { jobView } from '@/server/jobs/job-view';
import { ReleasePage } from '@/ui/release/release-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function JobReleasePage({ params }: PageProps<'/jobs/[id]/release'>) {
  const { id } = await params;
  const job = await findJob(id);
  if (!job) notFound();
  return (
    <>
      <PageTitle of={`Release of ${job.serial}`} />
      <ReleasePage view={await jobView(id)} />
    </>
  );
}
