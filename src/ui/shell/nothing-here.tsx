import Link from 'next/link';
import { PageHead } from './frame';
import { PageTitle } from './page-title';

/** An address that leads to nothing: a job, a sheet or a step that is not in this shop's book. */
export function NothingHere() {
  return (
    <>
      <PageTitle of="Not in the book" />
      <PageHead title="Not in the book" />
      <p>
        Nothing of this shop lies at this address. <Link href="/">Back to the floor</Link>
      </p>
    </>
  );
}
