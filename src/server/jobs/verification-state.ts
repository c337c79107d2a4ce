import { calibrationState, type Instrument } from '@/core/instruments/instrument';
import type { VerificationState } from '@/core/judging/verification';
import type { Job } from '@/data/jobs';
import type { Run } from '@/data/runs';
import type { JobEvaluation } from './evaluate-job';
import { sheetOf } from './job-context';
import { settingOf } from './run-analyses';

/** Error of an instrument at full scale, counted double where it is overdue. */
function errorOf(instrument: Instrument, date: string): number {
  const doubled = calibrationState(instrument, date).kind === 'overdue' ? 2 : 1;
  return instrument.classFraction * instrument.range * doubled;
}

/** Another gauge of the same class may differ by a little. */
const asGood = 1.05;

/** Whether a step was read with anything worse than before. */
function readWorse(job: Job, channels: readonly string[], before: Run, now: Run): boolean {
  const [then, today] = [settingOf(job, before), settingOf(job, now)];
  return channels.some((channel) => {
    const [was, is] = [then.instruments.get(channel), today.instruments.get(channel)];
    return was && is ? errorOf(is, today.date) > asGood * errorOf(was, then.date) : false;
  });
}

/** Whether a repair is proved: every step that is due since passed, with instruments no worse than before. */
export function verificationState(
  job: Job,
  { evaluation, past, due, runs, repairs }: Pick<JobEvaluation, 'evaluation' | 'past' | 'due' | 'runs' | 'repairs'>,
): VerificationState {
  if (repairs.length === 0) return { kind: 'nothing-repaired' };
  const { kind } = sheetOf(job);
  const verdictOf = (step: string) => evaluation.steps.find((each) => each.step === step)?.verdict ?? 'not-run';
  const left = due.filter(({ step }) => verdictOf(step) === 'not-run');
  const failed = due.flatMap(({ step }) => (['fail', 'undecided'].includes(verdictOf(step)) ? [step] : []));
  if (failed.length > 0) return { kind: 'not-verified', failed };
  if (left.length > 0) {
    const minutes = left.reduce(
      (sum, { step }) => sum + (kind.steps.find((each) => each.id === step)?.minutes ?? 0),
      0,
    );
    return { kind: 'to-do', left, minutes };
  }
  const worse = due.flatMap(({ step: id }) => {
    const step = kind.steps.find((each) => each.id === id);
    const before = runs.find((run) => run.id === past.at(-1)?.runs[id]);
    const now = runs.filter((run) => run.step === id && run.state === 'kept' && run.struckOut === null).at(-1);
    if (step?.kind !== 'measured' || !before || !now) return [];
    return readWorse(job, [...step.feeds.log.needs, ...step.feeds.log.uses], before, now) ? [id] : [];
  });
  return worse.length > 0 ? { kind: 'worse-instruments', steps: worse } : { kind: 'verified' };
}
