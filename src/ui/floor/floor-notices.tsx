'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Link from 'next/link';
import type { FloorView } from '@/server/views/floor-view';
import { howLong } from '@/ui/parts/how-long';
import { useWhen } from '@/ui/parts/when';

const unreadableWords: Readonly<Record<FloorView['unreadable'][number], string>> = {
  settings:
    'The workshop’s settings cannot be read. Nothing can be measured until they are saved again: nobody knows the air.',
  prevalences: 'How common faults are in this workshop cannot be read: rankings begin as the families say.',
  people: 'Some of the workshop’s people cannot be read.',
  instruments: 'Some of the bench’s instruments cannot be read.',
};

const unreadableAt: Readonly<Record<FloorView['unreadable'][number], string>> = {
  settings: '/settings',
  prevalences: '/settings/prevalence',
  people: '/settings',
  instruments: '/instruments',
};

/** What is the matter with the workshop's own records and its clock. */
export function FloorNotices({ unreadable, clockRanBack }: Pick<FloorView, 'unreadable' | 'clockRanBack'>) {
  const when = useWhen();
  const [back] = clockRanBack;
  return (
    <>
      {unreadable.map((what) => (
        <Alert
          key={what}
          severity="warning"
          action={
            <Button component={Link} href={unreadableAt[what]} color="inherit" size="small">
              Look at it
            </Button>
          }
        >
          {unreadableWords[what]}
        </Alert>
      ))}
      {back && (
        <Alert severity="warning">
          The clock of this machine ran back by {howLong(back.seconds)}; that was seen {when(back.at, 'moment')}. What
          came first is told by numbers, so that every interlock holds; times on record may overlap.
        </Alert>
      )}
    </>
  );
}
