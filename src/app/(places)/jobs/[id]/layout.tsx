import { notFound } from 'next/navigation';
import { jobInBook } from '@/server/shop/library';
import { UnreadableJob } from '@/ui/job/unreadable-job';

/** Says what is wrong with a job that is not in the book, or whose record is damaged, before anything of its pages is made. */
export default async function JobLayout({ children, params }: LayoutProps<'/jobs/[id]'>) {
  const job = await jobInBook((await params).id);
  if (job.kind === 'none') notFound();
  return job.kind === 'unreadable' ? <UnreadableJob fields={job.fields} /> : children;
}
