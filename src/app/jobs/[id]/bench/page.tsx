import { notFound, redirect } from 'next/navigation';
import { jobViewIfThere } from '@/server/views/job-view';

/** The bench of whatever is to be done next; the run sheet where that is nothing. */
export default async function NextBenchPage({ params }: PageProps<'/jobs/[id]/bench'>) {
  const { id } = await params;
  const view = await jobViewIfThere(id);
  if (!view) notFound();
  redirect(view.nextStep === null ? `/jobs/${id}` : `/jobs/${id}/bench/${view.nextStep}`);
}
