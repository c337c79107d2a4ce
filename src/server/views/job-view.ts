import { loadJobRecord, openRun, type BrokenRow, type JobRecord } from '@/data/job-record';
import { RequestRefused } from '../http/refused';
import { conclusionOf } from '../judging/conclusion';
import { recordingNow } from '../recording/recording-now';
import { shownOpen, type OpenRun } from './open-run';
import { loadShop, type Shop } from '../shop/shop-now';
import type { Lock } from '@/core/procedure/interlock';
import { hypothesisTitle } from '@/core/wording/ledger-text';
import { lockText } from '@/core/wording/lock-text';
import { locksOf } from '../judging/interlocks';
import type { Conclusion } from '@/core/contract/plan';
import type { CautionId } from '@/core/vocabulary/caution-id';
import { calibrationState } from '@/core/instruments/instrument';
import type { StepEvaluation, UnitEvaluation } from '@/core/judging/evaluate-unit';
import type { UnitVerdict } from '@/core/vocabulary/verdict';
import { ledgerOr, type LedgerTrouble } from '../judging/job-ledger';
import { orderByWorth } from '@/core/diagnosis/order-by-worth';
import type { Ledger } from '@/core/diagnosis/ledger';
import type { DueStep, VerificationState } from '@/core/judging/verification';
import type { Repair } from '@/data/repairs';
import { roundOf, speaksNow } from '../context/rounds';
import { behindOf, inFrontOf, type BehindIt } from '../judging/behind';
import { blockingOf, type Blocking } from '../judging/blocking';
import { cameBackOf, type CameBack } from '../judging/came-back';
import { channelsOf } from '../context/step-channels';
import { keptFace, type Face } from '../judging/unit-face';
import { verificationState } from '../judging/verification-state';
import type { AcknowledgedCaution, Job } from '@/data/jobs';
import type { Act } from '@/data/acts';
import { evaluateJob, type JobEvaluation } from '../judging/evaluate-job';
import { isOfStep } from '../context/answered-steps';
import { contextOf, sheetOf, stepTitle } from '../context/job-context';
import { undoableOf, type Undoable } from './undoable';

export interface OverdueInstrument {
  readonly channel: string;
  readonly name: string;
  readonly dueOn: string;
  readonly steps: readonly string[];
}

export interface RunSummary {
  readonly id: string;
  readonly startedAt: string;
  readonly person: string;
  readonly struckOut: string | null;
  /** It has a trace: it was neither typed nor looked at. */
  readonly recorded: boolean;
  /** Round of testing that it was made in. */
  readonly round: number;
  /** Whether it is of the round that its step is judged on: of a step that a repair makes due, of the last one. */
  readonly ofThisRound: boolean;
  /** Who kept it and who struck it out, where that is on record. */
  readonly keptBy: string | null;
  readonly struckOutBy: string | null;
}

export interface StepView {
  readonly id: string;
  readonly title: string;
  readonly why: string;
  readonly minutes: number;
  readonly kind: 'measured' | 'look' | 'typed';
  readonly cautions: readonly CautionId[];
  /** Why the step does not open; null when it does. */
  readonly shut: { readonly why: string; readonly opener: string } | null;
  readonly evaluation: StepEvaluation;
  readonly runs: readonly RunSummary[];
}

export interface JobView {
  readonly job: Job;
  readonly familyTitle: string;
  readonly verdict: UnitVerdict;
  readonly steps: readonly StepView[];
  /** First step of the plan that still wants doing. */
  readonly nextStep: string | null;
  readonly openRun: OpenRun | null;
  /** Where the plan's inquiry has ended; null while it is open, or for a plan that only measures. */
  readonly conclusion: Pick<Conclusion, 'id' | 'title' | 'advice' | 'handsTo'> | null;
  /** What looks behind its unit, and the job whose unit it looks behind itself; null where there is none. */
  readonly behind: BehindIt | null;
  readonly inFront: Pick<Job, 'id' | 'number' | 'serial'> | null;
  readonly face: Face;
  /** Why a release cannot be issued: steps by verdict. Empty when it can. */
  readonly blocking: readonly Blocking[];
  readonly releases: readonly {
    readonly id: string;
    readonly kind: string;
    readonly issuedAt: string;
    readonly person: string;
    readonly withdrawn: { readonly at: string; readonly why: string } | null;
  }[];
  readonly cautions: readonly AcknowledgedCaution[];
  /** Instruments that steps of this plan are read with although their calibration is overdue. */
  readonly overdue: readonly OverdueInstrument[];
  /** What was done within the day and can be taken back, latest first. */
  readonly undoable: readonly Undoable[];
  /** What may be the matter; null for the reason that `ledgerTrouble` says. */
  readonly ledger: Ledger | null;
  readonly ledgerTrouble: LedgerTrouble | null;
  /** What it most likely is; null while nothing that was measured says so. */
  readonly likeliest: Likeliest | null;
  /** Rounds of testing, from 1: every repair begins another. */
  readonly round: number;
  readonly repairs: readonly Repair[];
  /** What the last repair makes due, and how far its proof has come. */
  readonly due: readonly DueStep[];
  readonly verification: VerificationState;
  /** What the steps came to before the last repair; empty where nothing was repaired. */
  readonly before: readonly StepEvaluation[];
  /** The job that this serial was last here for, with what its face was then; null where it was not. */
  readonly cameBack: CameBack | null;
  /** Steps of which a finished run is set aside while they are run again. */
  readonly aside: readonly string[];
  /** Rows of its record that cannot be read. */
  readonly broken: readonly BrokenRow[];
  /** When the clock was seen to have run back between two things that were done to it, and by how much, s; latest first. */
  readonly clockRanBack: readonly { readonly at: string; readonly seconds: number }[];
  /** What another method judges otherwise than the one before it did, latest first. */
  readonly rejudged: readonly { readonly by: string; readonly at: string; readonly what: string }[];
  /** What was corrected of what was booked, with what stood before, latest first. */
  readonly corrected: readonly { readonly by: string; readonly at: string; readonly what: string }[];
}

/** The run that is recorded or waits to be kept, as the screens show it. */
export function openRunOf(record: Pick<JobRecord, 'runs'>): OpenRun | null {
  const open = openRun(record);
  return open ? shownOpen(open, recordingNow()) : null;
}

/** Whether a release of the unit stands. */
export const isReleased = ({ releases }: Pick<JobView, 'releases'>) =>
  releases.some(({ kind, withdrawn }) => kind === 'released' && withdrawn === null);

/** Instruments mounted today whose calibration is overdue, with the steps of the plan that are read with them. */
export function overdueOf(job: Job, { site, today }: Shop, evaluation: UnitEvaluation): OverdueInstrument[] {
  const context = contextOf(job, site, today);
  const { kind } = sheetOf(job);
  const steps = kind.steps.filter((step) => evaluation.steps.some((each) => each.step === step.id));
  return [...context.instruments.values()].flatMap((instrument) => {
    const state = calibrationState(instrument, today);
    if (state.kind !== 'overdue') return [];
    const { channel, name } = instrument;
    const read = steps.filter((step) => channelsOf(step, context).includes(channel)).map((step) => step.id);
    return read.length > 0 ? [{ channel, name, dueOn: state.dueOn, steps: read }] : [];
  });
}

/** First step that still wants doing; where it is shut, the step that opens it. */
function nextOf(steps: readonly StepView[], locks: ReadonlyMap<string, Lock>): string | null {
  const next = steps.find((step) => step.evaluation.verdict === 'not-run')?.id ?? null;
  return next === null ? null : (locks.get(next)?.step ?? next);
}

const shutBy = (lock: Lock | undefined, titleOf: (id: string) => string): StepView['shut'] =>
  lock ? { why: lockText(lock, titleOf), opener: lock.step } : null;

/** The fault at the head of a ledger, and how likely it is. */
export interface Likeliest extends Pick<Ledger, 'borneOut'> {
  readonly title: string;
  readonly probability: number;
}

/** What is said of a unit in one line: once a step has spoken, and it is likelier than not. */
export function likeliestOf(job: Job, { evaluation }: JobEvaluation, ledger: Ledger | null): Likeliest | null {
  const head = ledger?.rows[0];
  if (!ledger || !head || evaluation.steps.every((step) => step.verdict === 'not-run')) return null;
  if (head.probability < 0.5 || head.hypothesis.kind === 'no-fault') return null;
  const { borneOut } = ledger;
  return { title: hypothesisTitle(sheetOf(job).kind, head.hypothesis), probability: head.probability, borneOut };
}

/** The steps as the run sheet is to go: by the plan, or by what they tell. */
function inOrder({ orderedBy }: Job, steps: readonly StepView[], ledger: Ledger | null): readonly StepView[] {
  if (orderedBy === 'plan' || !ledger) return steps;
  const done = new Set(steps.filter(({ evaluation }) => evaluation.verdict !== 'not-run').map(({ id }) => id));
  const order = orderByWorth(
    steps.map(({ id }) => id),
    done,
    ledger.next,
  );
  return order.map((id) => steps.find((step) => step.id === id)!);
}

/** Everything the screens show of one job; refused where it is not in the book. */
export async function jobView(id: string): Promise<JobView> {
  const view = await jobViewIfThere(id);
  if (!view) throw new RequestRefused(404, 'This job is not in the book.');
  return view;
}

/** The same; null where there is no such job. */
export async function jobViewIfThere(id: string): Promise<JobView | null> {
  const [record, shop] = await Promise.all([loadJobRecord(id), loadShop()]);
  return record ? viewOf(record, shop) : null;
}

/** Steps of the plan with what they came to and what keeps them shut. */
function stepsOf({ job, acts }: JobRecord, evaluated: JobEvaluation, locks: ReadonlyMap<string, Lock>): StepView[] {
  const { evaluation, runs, repairs } = evaluated;
  const { kind } = sheetOf(job);
  const by = (subject: string, act: Act['act']) =>
    acts.findLast((each) => each.subject === subject && each.act === act)?.person ?? null;
  return evaluation.steps.map((step): StepView => {
    const definition = kind.steps.find((each) => each.id === step.step);
    if (!definition) throw new Error(`${kind.family} has no step ${step.step}`);
    const { id, title, why, minutes, kind: feed, cautions } = definition;
    const own = runs.filter((run) => isOfStep(job, run, id) && run.state === 'kept');
    return {
      id,
      title,
      why,
      minutes,
      kind: feed,
      cautions,
      shut: shutBy(locks.get(id), (each) => stepTitle(job, each)),
      evaluation: step,
      runs: own.map((run) => ({
        id: run.id,
        startedAt: run.startedAt,
        recorded: run.readings === null && run.findings === null,
        person: run.person,
        struckOut: run.struckOut,
        round: roundOf(run, repairs),
        ofThisRound: speaksNow(run, evaluated),
        keptBy: by(run.id, 'kept'),
        struckOutBy: by(run.id, 'struck-out'),
      })),
    };
  });
}

async function viewOf(record: JobRecord, shop: Shop): Promise<JobView> {
  const { job, acts } = record;
  const evaluated = await evaluateJob(record, shop);
  const { evaluation } = evaluated;
  const locks = await locksOf(record, { shop, evaluated });
  const { ledger, ledgerTrouble } = await ledgerOr(record, { shop, evaluated, locks });
  const steps = inOrder(job, stepsOf(record, evaluated, locks), ledger);
  const openRun = openRunOf(record);
  const said = (kind: Act['act']) =>
    acts
      .filter((each) => each.act === kind && each.undoneAt === null)
      .map(({ person, at, detail }) => ({ by: person, at, what: detail ?? '' }))
      .reverse();
  const behind = await behindOf(record, shop);
  return {
    ledger,
    ledgerTrouble,
    likeliest: likeliestOf(job, evaluated, ledger),
    round: evaluated.past.length + 1,
    repairs: evaluated.repairs,
    due: evaluated.due,
    verification: verificationState(job, evaluated),
    // What was found in the traces is not compared: only what it came to.
    before: (evaluated.past.at(-1)?.evaluation.steps ?? []).map((step) => ({ ...step, analyses: [] })),
    cameBack: await cameBackOf(job, shop),
    job,
    familyTitle: sheetOf(job).kind.title,
    verdict: evaluation.verdict,
    steps,
    nextStep: openRun?.step ?? nextOf(steps, locks),
    openRun,
    conclusion: conclusionOf(job, evaluation),
    face: await keptFace(record, evaluated, shop),
    behind,
    inFront: await inFrontOf(job),
    blocking: blockingOf(record, { evaluation, behind }),
    releases: record.releases.map(({ id, kind, issuedAt, person, withdrawn }) => ({
      id,
      kind,
      issuedAt,
      person,
      withdrawn,
    })),
    cautions: record.cautions,
    overdue: overdueOf(job, shop, evaluation),
    undoable: undoableOf(record, (step) => stepTitle(job, step)),
    rejudged: said('rejudged'),
    corrected: said('corrected'),
    aside: evaluated.runs.filter((run) => run.state === 'aside').map((run) => run.step),
    broken: record.broken,
    clockRanBack: acts
      .filter((each) => each.act === 'clock-ran-back')
      .map(({ at, detail }) => ({ at, seconds: Number(detail) }))
      .reverse(),
  };
}
