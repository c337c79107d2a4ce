import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { findJob } from '@/data/jobs';
import { jobView } from '@/server/jobs/job-view';
import { JobPage } from '@/ui/job/job-page';

export const metadata: Metadata = { title: 'Job' };

export default async function OneJobPage({ params }: PageProps<'/jobs/[id]'>) {
  const { id } = await params;
  if (!(await findJob(id))) notFound();
  return <JobPage view={await jobView(id)} />;
}
