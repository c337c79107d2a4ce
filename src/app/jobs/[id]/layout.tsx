import { notFound } from 'next/navigation';
import { jobInBook } from '@/server/shop/library';
import { UnreadableJob } from '@/ui/job/unreadable-job';
import { FamilyAtHand } from '@/ui/parts/family-at-hand';

/** Says what is wrong with a job that is not in the book, or whose record is damaged, before anything of its pages is made. */
export default async function JobLayout({ children, params }: LayoutProps<'/jobs/[id]'>) {
  const looked = await jobInBook((await params).id);
  if (looked.kind === 'none') notFound();
  if (looked.kind === 'unreadable') return <UnreadableJob fields={looked.fields} />;
  return <FamilyAtHand of={looked.job.sheet.family}>{children}</FamilyAtHand>;
}
