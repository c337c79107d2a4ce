import { notFound } from 'next/navigation';
import { sheetInLibrary } from '@/server/shop/library';
import { FamilyAtHand } from '@/ui/parts/family-at-hand';

/** Nothing of the page is made for a sheet that is not in the library. */
export default async function SheetLayout({ children, params }: LayoutProps<'/sheets/[id]'>) {
  const sheet = await sheetInLibrary((await params).id);
  if (!sheet) notFound();
  return <FamilyAtHand of={sheet.family}>{children}</FamilyAtHand>;
}
