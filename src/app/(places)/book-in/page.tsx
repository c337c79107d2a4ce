import { airOf } from '@/server/shop/air-text';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { isReleased, jobViewIfThere } from '@/server/views/job-view';
import { sheetsInLibrary } from '@/server/shop/library';
import { BookInForm } from '@/ui/book-in/book-in-form';
import { FamilyAtHand } from '@/ui/parts/family-at-hand';
import { PageTitle } from '@/ui/shell/page-title';

export default async function BookInPage({ searchParams }: PageProps<'/book-in'>) {
  const { sheet, behind: of } = await searchParams;
  const [sheets, shop] = await Promise.all([sheetsInLibrary(), shopOfPage()]);
  const air = airOf(shop);
  const front = typeof of === 'string' ? await jobViewIfThere(of) : null;
  const handsTo = front?.job.takenOutAt === null ? front.conclusion?.handsTo : undefined;
  return (
    <>
      <PageTitle of="Book in" />
      <FamilyAtHand of="any">
        <BookInForm
          sheets={sheets}
          chosenSheet={typeof sheet === 'string' ? sheet : ''}
          air={air}
          behind={
            front && handsTo !== undefined ? { ...front.job, family: handsTo, released: isReleased(front) } : null
          }
          notBehind={of !== undefined && handsTo === undefined}
        />
      </FamilyAtHand>
    </>
  );
}
