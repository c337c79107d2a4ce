import { findFamily } from '@/core/families';
import { checkSpec, type UnitSheet } from '@/core/formats/unit-sheet';
import { standInSource, writeBenchLog } from '@/core/formats/bench-log';
import { simulateStep, type StandInSetting } from '@/core/rig/run-step';
import { ledgerOf, type Ledger, type LedgerAsked } from '@/core/diagnosis/ledger';
import { readSignatures } from '../context/signature-file';
import { unnamedGauges } from '@/core/procedure/unnamed-gauges';
import { suspectLog } from '@/core/diagnosis/suspect-log';
import { fitSeverity, type SeverityFit } from '@/core/diagnosis/fit-severity';
import { analysisOf, type StepEvaluation } from '@/core/judging/evaluate-unit';
import { questionedChannels, type QuestionedChannel } from '@/core/formats/questioned-channels';
import type { Report } from '@/core/formats/report';
import { inTodaysNames } from '@/core/procedure/todays-names';
import { packFrame } from '@/core/traces/frame';
import type { Trace } from '@/core/traces/trace';
import type { StepAnalysis } from '@/core/procedure/step-analysis';
import type { StepContext } from '@/core/procedure/step-context';
import { findJob, type Job } from '@/data/jobs';
import { findRun, readTrace, type Run } from '@/data/runs';
import { judgedStepOf, measuredStepOf, sheetOf } from '../context/job-context';
import { noCorrections, type PairCorrection } from '@/core/procedure/step-analysis';
import { planOf } from '@/core/contract/kind';
import { conditionWith } from '@/core/contract/model';
import type { ActiveFault } from '@/core/physics/plant';
import { observedTrace } from '@/core/rig/observe';
import { timelinePart, type TimelinePart, type TimelineWindow } from '@/core/pictures/timeline-window';
import { pictureOf, type TimelineLane } from '@/core/procedure/picture';
import { comparedLines, type ComparedLine } from '@/core/pictures/compared-line';
import { drawnCurve, type DrawnCurve } from '@/core/pictures/drawn-curve';
import { drawPaperFace, type PaperFace, type PaperFaceAsked } from '../paper/paper-face';
import { reportHtml } from '../paper/report-html';
import { reportPdf } from '../paper/report-pdf';
import type { RunProgress } from '../recording/run-recorder';
import { wholeFrame } from '../recording/wire-frame';

/*
 * Heavy work, done on threads of its own so that a recorder never waits for it. Everything that goes in or comes out is plain data; what
 * was recorded is read from the database where the work is done.
 */

/** The log that was read last: all steps that it answers are asked of it one after the other. */
let last: { readonly runId: string; readonly trace: Trace } | null = null;

async function recordedTrace(runId: string, run?: Run): Promise<Trace> {
  if (last?.runId === runId) return last.trace;
  const { trace } = await readTrace(runId);
  // A run that still grows is another one in a moment.
  if (run && run.state !== 'recording') last = { runId, trace };
  return trace;
}

/** Lanes that were looked into last: somebody who zooms asks for them again and again. */
let drawnLast: { readonly key: string; readonly lanes: readonly TimelineLane[] } | null = null;

/** A run's trace with the channels as its step calls them today. */
async function traceOf(job: Job, run: Run): Promise<Trace> {
  const { kind } = sheetOf(job);
  const trace = await recordedTrace(run.id, planOf(kind, job.plan).oneLog ? run : undefined);
  const step = kind.steps.find((each) => each.id === run.step);
  return step?.kind === 'measured' ? inTodaysNames(trace, step.feeds.log) : trace;
}

async function recordedOf(runId: string): Promise<{ readonly job: Job; readonly run: Run }> {
  const run = await findRun(runId);
  const job = run && (await findJob(run.jobId));
  if (!job) throw new Error(`run ${runId} is gone`);
  return { job, run };
}

/**
 * What a run's guide was cut for is said of what it came to: time that a busy machine missed counts against the limit and is in no
 * trace, so that the trace alone may not tell.
 */
function withCutSaid(analysis: StepAnalysis, { progress }: Run): StepAnalysis {
  const cut = (progress as RunProgress | null)?.guide.cut ?? null;
  if (!cut || analysis.notes.some(({ code }) => code === 'charged-too-long')) return analysis;
  return { ...analysis, notes: [...analysis.notes, { code: 'charged-too-long', of: cut.of, seconds: cut.seconds }] };
}

async function unitOf(jobId: string): Promise<UnitSheet> {
  const job = await findJob(jobId);
  if (!job) throw new Error(`job ${jobId} is gone`);
  return sheetOf(job);
}

/** A context as it goes to a thread: the unit follows from the job's sheet. */
export type SentContext = Omit<StepContext<unknown>, 'unit'>;

export interface AnalysisWanted {
  readonly runId: string;
  readonly step: string;
  readonly context: SentContext;
}

export interface PaperFaceWanted extends PaperFaceAsked {
  readonly runId: string;
}

export interface TimelineWanted extends ComparedWanted {
  readonly window: TimelineWindow | null;
}

export interface CurveWanted {
  readonly runId: string;
  readonly context: SentContext;
  readonly pair: PairCorrection | null;
  readonly points: number;
}

export interface ComparedWanted {
  readonly runId: string;
  readonly step: string;
  readonly context: SentContext;
}

export interface ExpectedWanted {
  readonly jobId: string;
  readonly step: string;
  readonly context: SentContext;
  readonly faults: readonly ActiveFault[];
}

export interface StandInLogWanted extends StandInSetting {
  readonly jobId: string;
  readonly step: string;
  readonly context: SentContext;
  readonly recorded: string;
}

export interface FitWanted {
  readonly jobId: string;
  readonly context: SentContext;
  readonly steps: readonly StepEvaluation[];
  readonly fault: string;
}

export interface LedgerWanted extends Omit<LedgerAsked, 'context' | 'openers'> {
  readonly sheet: Job['sheet'];
  readonly context: SentContext;
  readonly openers: readonly (readonly [string, string])[];
}

export const tasks = {
  /** Nothing but a sign of life. */
  async ready(): Promise<true> {
    return true;
  },

  /** What a run's trace comes to; a log file is looked at as well, whether it is this unit's and this step's. */
  async analyse({ runId, step: stepId, context: given }: AnalysisWanted): Promise<StepAnalysis> {
    const { job, run } = await recordedOf(runId);
    const { kind, unit } = sheetOf(job);
    const step = judgedStepOf(kind, stepId);
    const context = { ...given, unit };
    const trace = await traceOf(job, run);
    if (run.context.source !== 'log file' || step.kind !== 'measured')
      return withCutSaid(analysisOf(step, { trace }, context), run);
    const analysis = analysisOf(step, { trace }, context);
    const said = [
      ...suspectLog(kind, step, trace, context),
      ...(run.context.standIn ? [] : unnamedGauges(step, trace, context)),
    ];
    return { ...analysis, notes: [...said, ...analysis.notes] };
  },

  /** What may be the matter with a unit, and what to do next. */
  async ledger({ sheet, context, openers, ...asked }: LedgerWanted): Promise<Ledger> {
    const family = findFamily(sheet.family);
    const checked = family && checkSpec(family, sheet.name, sheet.spec, 'ledger');
    if (!checked?.ok) throw new Error(`the sheet of a ${sheet.family} is not valid`);
    const { kind, unit } = checked.value;
    const table = readSignatures(kind, context.plan);
    if (!table) throw new Error(`there is no table of signatures for a ${sheet.family}`);
    return ledgerOf(kind, table, { ...asked, context: { ...context, unit }, openers: new Map(openers) });
  },

  /** A run in every way in which it can be drawn over another run of its step. */
  async compared({ runId, step: stepId, context: given }: ComparedWanted): Promise<readonly ComparedLine[]> {
    const { job, run } = await recordedOf(runId);
    const { kind, unit } = sheetOf(job);
    const step = kind.steps.find((each) => each.id === stepId);
    if (step?.kind !== 'measured') return [];
    const context = { ...given, unit };
    const trace = await traceOf(job, run);
    return comparedLines({ step, trace, context, analysis: step.analyse(trace, context) });
  },

  /** The same of what a step would draw of a job's unit with these faults. */
  async expected({ jobId, step: stepId, context: given, faults }: ExpectedWanted): Promise<readonly ComparedLine[]> {
    const { kind, unit } = await unitOf(jobId);
    const step = kind.steps.find((each) => each.id === stepId);
    if (step?.kind !== 'measured') return [];
    // Gauges that show what is there need no correction.
    const context = { ...given, unit, corrections: noCorrections };
    const mounted = { unit, condition: conditionWith(kind.model, unit, faults) as unknown };
    const trace = observedTrace(kind, step, context, mounted);
    return trace ? comparedLines({ step, trace, context, analysis: step.analyse(trace, context) }) : [];
  },

  /** A log as the stand-in's tool in the vehicle writes it. */
  async standInLog({ jobId, step: stepId, context: given, recorded, ...setting }: StandInLogWanted): Promise<string> {
    const { kind, unit, name } = await unitOf(jobId);
    const trace = simulateStep(kind, measuredStepOf(kind, stepId), { ...given, unit }, setting);
    return writeBenchLog(trace, { source: standInSource, unit: name, recorded });
  },

  /** How much of a fault there is, fitted to what was measured; null where nothing that was measured says so. */
  async fitted({ jobId, context: given, steps, fault }: FitWanted): Promise<SeverityFit | null> {
    const { kind, unit } = await unitOf(jobId);
    const table = readSignatures(kind, given.plan);
    return table && fitSeverity(kind, table, { ...given, unit }, steps, fault);
  },

  /** Channels of a kept log whose unit or reference is in doubt. */
  async questioned({
    runId,
    ambient,
  }: {
    readonly runId: string;
    readonly ambient: number;
  }): Promise<readonly QuestionedChannel[]> {
    return questionedChannels((await readTrace(runId)).trace, ambient);
  },

  /** The curve of a run, for the small picture of its unit. */
  async curve({ runId, context, pair, points }: CurveWanted): Promise<DrawnCurve | null> {
    const { job } = await recordedOf(runId);
    const { kind, unit } = sheetOf(job);
    return drawnCurve(await recordedTrace(runId), kind.curve, { pair, points, context: { ...context, unit } });
  },

  /** Part of a run's time-line; null where its step has none, or nothing is in it. */
  async timeline({ runId, step: stepId, context: given, window }: TimelineWanted): Promise<TimelinePart | null> {
    const { job, run } = await recordedOf(runId);
    const { kind, unit } = sheetOf(job);
    const step = kind.steps.find((each) => each.id === stepId);
    const picture = step?.kind === 'measured' ? pictureOf(step.pictures, 'timeline') : undefined;
    if (!picture) return null;
    const key = `${runId} ${stepId}`;
    if (drawnLast?.key !== key) drawnLast = { key, lanes: picture.lanes(await traceOf(job, run), { ...given, unit }) };
    return timelinePart(drawnLast.lanes, window);
  },

  /** The picture on a paper. */
  async paperFace({ runId, ...wanted }: PaperFaceWanted): Promise<PaperFace> {
    const { job, run } = await recordedOf(runId);
    return drawPaperFace({ job, run, ...wanted }, await traceOf(job, run));
  },

  /** A finished run as the first and only frame of its stream. */
  async frame({ runId, state }: { readonly runId: string; readonly state: string }): Promise<Uint8Array<ArrayBuffer>> {
    const { job, run } = await recordedOf(runId);
    return wholeFrame(state, await traceOf(job, run));
  },

  /** What a run has recorded so far, as a frame. */
  async recorded({ runId }: { readonly runId: string }): Promise<Uint8Array<ArrayBuffer>> {
    return packFrame((await readTrace(runId)).trace);
  },

  async html(report: Report): Promise<string> {
    return reportHtml(report);
  },

  async pdf(report: Report): Promise<Uint8Array> {
    return new Uint8Array(await reportPdf(report));
  },
};

export type Tasks = typeof tasks;
