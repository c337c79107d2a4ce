import Alert from '@mui/material/Alert';
import Link from 'next/link';
import { PageHead } from '@/ui/shell/frame';
import { PageTitle } from '@/ui/shell/page-title';

/** A job whose record is damaged: what of it, and that the others are not touched by it. */
export function UnreadableJob({ fields }: { readonly fields: readonly string[] }) {
  return (
    <>
      <PageTitle of="Cannot be read" />
      <PageHead title="This job cannot be shown" />
      <Alert severity="warning">
        Its record is damaged ({fields.join(', ').replaceAll('_', ' ')}). The other jobs are not touched by it; a copy
        of the shop’s data from before brings it back. <Link href="/">Back to the floor</Link>
      </Alert>
    </>
  );
}
