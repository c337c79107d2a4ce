import { notFound } from 'next/navigation';
import { sheetInLibrary } from '@/server/shop/library';

/** Nothing of the page is made for a sheet that is not in the library. */
export default async function SheetLayout({ children, params }: LayoutProps<'/sheets/[id]'>) {
  if (!(await sheetInLibrary((await params).id))) notFound();
  return children;
}
