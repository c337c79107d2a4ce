import { suspectLog } from '@/core/diagnosis/suspect-log';
import { analysisOf } from '@/core/judging/evaluate-unit';
import { questionedChannels, type QuestionedChannel } from '@/core/formats/questioned-channels';
import type { Report } from '@/core/formats/report';
import { inTodaysNames } from '@/core/procedure/todays-names';
import { packFrame } from '@/core/traces/frame';
import type { Trace } from '@/core/traces/trace';
import type { StepAnalysis } from '@/core/procedure/step-analysis';
import type { StepContext } from '@/core/procedure/step-context';
import { findJob, type Job } from '@/data/jobs';
import { findRun, readTrace, type Run } from '@/data/runs';
import { judgedStepOf, sheetOf } from '../jobs/job-context';
import type { CurvePicture } from '@/core/procedure/picture';
import type { PairCorrection } from '@/core/procedure/step-analysis';
import { drawnCurve, type DrawnCurve } from '@/core/pictures/drawn-curve';
import { drawPaperFace, type PaperFace, type PaperFaceAsked } from '../release/paper-face';
import { reportHtml } from '../release/report-html';
import { reportPdf } from '../release/report-pdf';
import { wholeFrame } from '../runs/wire-frame';

/*
 * Heavy work, done on threads of its own so that a recorder never waits for it. Everything that goes in or comes out is plain data; what
 * was recorded is read from the database where the work is done.
 */

/** A run's trace with the channels as its step calls them today. */
async function traceOf(job: Job, run: Run): Promise<Trace> {
  const { trace } = await readTrace(run.id);
  const step = sheetOf(job).kind.steps.find((each) => each.id === run.step);
  return step?.kind === 'measured' ? inTodaysNames(trace, step.feeds.log) : trace;
}

async function recordedOf(runId: string): Promise<{ readonly job: Job; readonly run: Run }> {
  const run = await findRun(runId);
  const job = run && (await findJob(run.jobId));
  if (!job) throw new Error(`run ${runId} is gone`);
  return { job, run };
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

export interface CurveWanted {
  readonly runId: string;
  readonly of: Pick<CurvePicture<unknown>, 'input' | 'outputs'>;
  readonly pair: PairCorrection | null;
  readonly points: number;
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
    const suspicious = run.context.source === 'log file' && step.kind === 'measured';
    return analysisOf(step, suspicious ? { trace, said: suspectLog(kind, step, trace, context) } : { trace }, context);
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
  async curve({ runId, of, pair, points }: CurveWanted): Promise<DrawnCurve | null> {
    return drawnCurve((await readTrace(runId)).trace, of, { pair, points });
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
