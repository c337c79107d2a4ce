import { notFound } from 'next/navigation';
import { sheetsInLibrary } from '@/server/shop/library';
import { jobViewIfThere } from '@/server/views/job-view';
import { CorrectForm } from '@/ui/book-in/correct-form';
import { PageTitle } from '@/ui/shell/page-title';
import { ShownVersion } from '@/ui/shell/shown-version';

export default async function BookingPage({ params }: PageProps<'/jobs/[id]/booking'>) {
  const { id } = await params;
  const [view, sheets] = await Promise.all([jobViewIfThere(id), sheetsInLibrary()]);
  if (!view || view.job.takenOutAt !== null) notFound();
  return (
    <>
      <PageTitle of={`Correct, ${view.job.serial}`} />
      <ShownVersion version={view.job.version} />
      <CorrectForm view={view} sheets={sheets} />
    </>
  );
}
