import { airNow } from '@/server/jobs/air-text';
import { isReleased, jobViewIfThere } from '@/server/jobs/job-view';
import { sheetsInLibrary } from '@/server/shop';
import { BookInForm } from '@/ui/book-in/book-in-form';
import { PageTitle } from '@/ui/shell/page-title';

export default async function BookInPage({ searchParams }: PageProps<'/book-in'>) {
  const { sheet, behind: of } = await searchParams;
  const [sheets, air] = await Promise.all([sheetsInLibrary(), airNow()]);
  const front = typeof of === 'string' ? await jobViewIfThere(of) : null;
  const handsTo = front?.job.takenOutAt === null ? front.conclusion?.handsTo : undefined;
  return (
    <>
      <PageTitle of="Book in" />
      <BookInForm
        sheets={sheets}
        chosenSheet={typeof sheet === 'string' ? sheet : ''}
        air={air}
        behind={front && handsTo !== undefined ? { ...front.job, family: handsTo, released: isReleased(front) } : null}
        notBehind={of !== undefined && handsTo === undefined}
      />
    </>
  );
}
