import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { findJob } from '@/data/jobs';
import { jobView } from '@/server/jobs/job-view';
import { ReleasePage } from '@/ui/release/release-page';

export const metadata: Metadata = { title: 'Release' };

export default async function JobReleasePage({ params }: PageProps<'/jobs/[id]/release'>) {
  const { id } = await params;
  if (!(await findJob(id))) notFound();
  return <ReleasePage view={await jobView(id)} />;
}
