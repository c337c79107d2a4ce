import Alert from '@mui/material/Alert';
import type { JobView } from '@/server/views/job-view';
import { howLong } from '@/ui/parts/how-long';
import { useWhen } from '@/ui/parts/when';

const brokenWords: Readonly<Record<JobView['broken'][number]['of'], string>> = {
  run: 'A run on this job’s record cannot be read: it counts for nothing, and the unit cannot be released.',
  repair:
    'A repair on this job’s record cannot be read: what is due since is not known, and the unit cannot be released.',
  act: 'An entry of who did what cannot be read: it is left out of the record shown here.',
  caution: 'An acknowledged caution cannot be read: it is asked for again.',
  release: 'A paper of this job cannot be read: it is left out of the list.',
};

/** What is the matter with a job's own record: rows that cannot be read, and a clock that ran back while it was worked on. */
export function RecordNotices({ view: { broken, clockRanBack } }: { readonly view: JobView }) {
  const when = useWhen();
  return (
    <>
      {broken.map(({ of, id }) => (
        <Alert key={`${of} ${id}`} severity="warning">
          {brokenWords[of]}
        </Alert>
      ))}
      {clockRanBack.map(({ at, seconds }) => (
        <Alert key={at} severity="warning">
          The clock ran back by {howLong(seconds)} before {when(at, 'moment')}. What came first is told by numbers, so
          that every interlock holds; times on record may overlap.
        </Alert>
      ))}
    </>
  );
}
