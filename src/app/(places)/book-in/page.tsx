import { airNow } from '@/server/jobs/air-text';
import { jobViewIfThere } from '@/server/jobs/job-view';
import { sheetsInLibrary } from '@/server/shop';
import { BookInForm } from '@/ui/book-in/book-in-form';
import { PageTitle } from '@/ui/shell/page-title';

export default async function BookInPage({ searchParams }: PageProps<'/book-in'>) {
  const { sheet, behind } = await searchParams;
  const [sheets, air] = await Promise.all([sheetsInLibrary(), airNow()]);
  const front = typeof behind === 'string' ? await jobViewIfThere(behind) : null;
  return (
    <>
      <PageTitle of="Book in" />
      <BookInForm
        sheets={sheets}
        chosenSheet={typeof sheet === 'string' ? sheet : ''}
        air={air}
        behind={front && { ...front.job, family: front.conclusion?.handsTo ?? 'foundation' }}
      />
    </>
  );
}
