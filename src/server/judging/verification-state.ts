import { minutesOfSteps } from '@/core/contract/one-log';
import { calibrationState, type Instrument } from '@/core/instruments/instrument';
import type { VerificationState } from '@/core/judging/verification';
import type { Job } from '@/data/jobs';
import { isStandIn, type Run } from '@/data/runs';
import { asDials } from '@/core/dials/default-dial';
import type { StepVerdict } from '@/core/vocabulary/verdict';
import { channelsOf } from '../context/step-channels';
import type { JobEvaluation } from './evaluate-job';
import { isOfStep } from '../context/answered-steps';
import { contextOf, sheetOf } from '../context/job-context';
import { settingOf } from './run-analyses';

/** Error of an instrument at full scale, counted double where it is overdue. */
function errorOf(instrument: Instrument, date: string): number {
  const doubled = calibrationState(instrument, date).kind === 'overdue' ? 2 : 1;
  return instrument.classFraction * instrument.range * doubled;
}

/** Another gauge of the same class may differ by a little. */
const asGood = 1.05;

/** What a run was read with: dials where somebody typed what they showed. */
function readWith(
  job: Job,
  run: Run,
): { readonly instruments: ReadonlyMap<string, Instrument>; readonly date: string } {
  const { instruments, date } = settingOf(job, run);
  return { date, instruments: run.readings && !isStandIn(run.context) ? asDials(instruments) : instruments };
}

/** Whether a step was read with anything worse than before, or without what it was read with then. */
function readWorse(job: Job, channels: readonly string[], before: Run, now: Run): boolean {
  const [then, today] = [readWith(job, before), readWith(job, now)];
  return channels.some((channel) => {
    const [was, is] = [then.instruments.get(channel), today.instruments.get(channel)];
    if (!was) return false;
    return !is || errorOf(is, today.date) > asGood * errorOf(was, then.date);
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
  const having = (verdict: StepVerdict) => due.flatMap(({ step }) => (verdictOf(step) === verdict ? [step] : []));
  const failed = having('fail');
  if (failed.length > 0) return { kind: 'not-verified', failed };
  if (left.length > 0) {
    const done = new Set(due.flatMap(({ step }) => (verdictOf(step) === 'not-run' ? [] : [step])));
    const minutes = minutesOfSteps(
      kind,
      job.plan,
      left.map(({ step }) => step),
      done,
    );
    return { kind: 'to-do', left, minutes };
  }
  const undecided = having('undecided');
  if (undecided.length > 0) return { kind: 'undecided', steps: undecided };
  const worse = due.flatMap(({ step: id }) => {
    const step = kind.steps.find((each) => each.id === id);
    const before = runs.find((run) => run.id === past.at(-1)?.runs[id]);
    const now = runs.filter((run) => isOfStep(job, run, id) && run.state === 'kept' && run.struckOut === null).at(-1);
    if (!step || !before || !now) return [];
    return readWorse(job, channelsOf(step, contextOf(job, now.context.site, now.startedAt)), before, now) ? [id] : [];
  });
  return worse.length > 0 ? { kind: 'worse-instruments', steps: worse } : { kind: 'verified' };
}
