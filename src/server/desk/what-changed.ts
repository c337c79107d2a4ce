import type { Act } from '@/data/acts';
import type { JobRecord } from '@/data/job-record';
import { stepTitle } from '../context/job-context';
import { isPlace, placeWords } from '../views/undoable';

/** What somebody did, in words that follow a name: "kept “Boost curve”". */
function deed(record: JobRecord, { act, subject, detail }: Act): string {
  const run = record.runs.find((each) => each.id === subject);
  const step = run ? `“${stepTitle(record.job, run.step)}”` : 'a run';
  switch (act) {
    case 'begun':
      return `began ${step}`;
    case 'kept':
      return `kept ${step}`;
    case 'discarded':
      return `threw ${step} away`;
    case 'struck-out':
      return `struck out ${step}`;
    case 'issued':
      return detail === 'released' ? 'issued a release' : 'issued findings';
    case 'withdrawn':
      return 'withdrew the release by that';
    case 'moved':
      return `moved it to “${isPlace(detail) ? placeWords[detail] : detail}”`;
    case 'repaired':
      return `recorded a repair (${detail})`;
    case 'taken-out':
      return 'took it out of the book';
    case 'corrected':
      return `corrected what was booked (${detail})`;
    case 'brought-back':
      return 'brought something back';
    case 'cautions-read':
      return 'read its cautions';
    case 'ordered':
      return 'put its run sheet in another order';
    case 'booked':
      return 'booked it in';
    case 'rejudged':
      return 'judges some of it otherwise';
    case 'clock-ran-back':
      return 'noticed that the clock ran back';
  }
}

/** What was done to a job since a version of it, in one sentence. */
export function whatChanged(record: JobRecord, since: number): string {
  const said = record.acts
    .filter(({ version }) => version !== null && version > since)
    .map((act) => `${act.person} ${deed(record, act)}`);
  return said.length === 0
    ? 'This job was changed since this page was loaded.'
    : `Since this page was loaded: ${[...new Set(said)].join('; ')}.`;
}
