import type { Metadata } from 'next';
import { listSheets } from '@/data/unit-sheets';
import { airNow } from '@/server/jobs/air-text';
import { BookInForm } from '@/ui/book-in/book-in-form';

export const metadata: Metadata = { title: 'Book in' };

export default async function BookInPage({ searchParams }: PageProps<'/book-in'>) {
  const { sheet } = await searchParams;
  const [sheets, air] = await Promise.all([listSheets(), airNow()]);
  return <BookInForm sheets={sheets} chosenSheet={typeof sheet === 'string' ? sheet : ''} air={air} />;
}
