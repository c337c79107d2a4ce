import type { Act } from '@/data/acts';
import { places, type Place } from '@/data/jobs';
import type { JobRecord } from '@/data/job-record';
import { dayAgo } from '../context/day-ago';

/** Something that was done within the day and can be taken back. */
export interface Undoable {
  readonly act: number;
  readonly what: 'discarded' | 'struck-out' | 'moved' | 'taken-out' | 'repaired' | 'corrected';
  /** Step of the run, or the place that the job was moved to; null for the job itself. */
  readonly of: { readonly id: string; readonly title: string } | null;
  readonly person: string;
  readonly at: string;
}

/** Places of the shop, as they are said of a unit. */
export const placeWords: Readonly<Record<Place, string>> = {
  waiting: 'waiting for the bench',
  'on-bench': 'on the bench',
  'waiting-parts': 'waiting for parts',
  ready: 'ready',
  gone: 'fetched',
};

export const isPlace = (text: string | null): text is Place => places.some((place) => place === text);

type Recorded = Pick<JobRecord, 'job' | 'runs' | 'repairs' | 'acts'>;

/** What was done to a job within the day and can be taken back, latest first. Of moves only the last one can; `titleOf` a step. */
export function undoableOf(record: Recorded, titleOf: (step: string) => string): readonly Undoable[] {
  const since = dayAgo();
  const acts = record.acts.filter((act) => act.at >= since && act.undoneAt === null).reverse();
  const last = (kind: Act['act']) => acts.find((act) => act.act === kind);
  const lastOf = { move: last('moved'), correction: last('corrected') };
  return acts.flatMap((act) => undoableAct(act, record, { lastOf, titleOf }) ?? []);
}

function undoableAct(
  act: Act,
  { job, runs, repairs }: Recorded,
  {
    lastOf,
    titleOf,
  }: {
    readonly lastOf: { readonly move: Act | undefined; readonly correction: Act | undefined };
    readonly titleOf: (step: string) => string;
  },
): Undoable | null {
  const { person, at } = act;
  switch (act.act) {
    case 'discarded':
    case 'struck-out': {
      const run = runs.find((each) => each.id === act.subject);
      if (!run) return null;
      const stands =
        act.act === 'discarded' ? run.state === 'discarded' && act.before !== null : run.struckOut !== null;
      const of = { id: run.step, title: titleOf(run.step) };
      return stands ? { act: act.id, what: act.act, of, person, at } : null;
    }
    case 'moved': {
      const { detail } = act;
      return act === lastOf.move && isPlace(act.before) && isPlace(detail) && job.place === detail
        ? { act: act.id, what: 'moved', of: { id: detail, title: placeWords[detail] }, person, at }
        : null;
    }
    case 'repaired': {
      const last = repairs.at(-1);
      const since = runs.some((run) => run.sequence > (last?.afterRun ?? 0) && run.state !== 'discarded');
      const of = { id: act.subject ?? '', title: act.detail ?? '' };
      return last?.id === act.subject && !since ? { act: act.id, what: 'repaired', of, person, at } : null;
    }
    case 'corrected': {
      const of = { id: '', title: act.detail ?? '' };
      return act === lastOf.correction && act.before !== null
        ? { act: act.id, what: 'corrected', of, person, at }
        : null;
    }
    case 'taken-out':
      return job.takenOutAt === null ? null : { act: act.id, what: 'taken-out', of: null, person, at };
    default:
      return null;
  }
}
