import { notFound } from 'next/navigation';
import { findJob } from '@/data/jobs';
import { jobView } from '@/server/jobs/job-view';
import { JobPage } from '@/ui/job/job-page';
import { PageTitle } from '@/ui/shell/page-title';

export default async function OneJobPage({ params }: PageProps<'/jobs/[id]'>) {
  const { id } = await params;
  const job = await findJob(id);
  if (!job) notFound();
  return (
    <>
      <PageTitle of={job.serial} />
      <JobPage view={await jobView(id)} />
    </>
  );
}
