import { createHash } from 'node:crypto';
import { suspectLog } from '@/core/diagnosis/suspect-log';
import { analysisOf, type Given, type JudgedStep, type RunSetting } from '@/core/judging/evaluate-unit';
import type { StepAnalysis } from '@/core/procedure/step-analysis';
import type { StepContext } from '@/core/procedure/step-context';
import type { Trace } from '@/core/traces/trace';
import type { Job } from '@/data/jobs';
import { listAnalyses, storeAnalysis } from '@/data/kept-results';
import { readTrace, type Run } from '@/data/runs';
import { contextOf, sheetOf } from './job-context';

/** A run whose trace has to be read before what it came to can be told. */
class TraceWanted extends Error {
  constructor(readonly run: Run) {
    super(`the trace of run ${run.id} is wanted`);
  }
}

/** What a run is read with apart from its own record: what earlier steps found out about the bench, and what the workshop asks for. */
function inputsOf({ corrections, workshopLimits, schools, plan }: StepContext<unknown>): string {
  return createHash('sha256')
    .update(JSON.stringify([corrections, workshopLimits, schools, plan]))
    .digest('hex');
}

/** What a run was recorded with. */
export function settingOf(job: Job, run: Run): RunSetting {
  const context = contextOf(job, run.context.site, run.startedAt);
  const { ambient, airTemperature, shell, benchVolume, instruments, date } = context;
  return { ambient, airTemperature, shell, benchVolume, instruments, date };
}

/** What the runs of a job came to: kept ones are read back, others made from their traces and kept. */
export class RunAnalyses {
  private readonly known = new Map<string, StepAnalysis>();
  private readonly traces = new Map<string, Trace>();
  private readonly fresh: { readonly run: Run; readonly inputs: string; readonly analysis: StepAnalysis }[] = [];

  private constructor(private readonly job: Job) {}

  static async of(job: Job, runs: readonly Run[]): Promise<RunAnalyses> {
    const analyses = new RunAnalyses(job);
    for (const { runId, inputs, analysis } of await listAnalyses(runs.map((run) => run.id)))
      analyses.known.set(`${runId} ${inputs}`, analysis);
    return analyses;
  }

  /** A run as evidence for a step, by what held when it was recorded. */
  given(step: JudgedStep, run: Run): Given {
    return { setting: settingOf(this.job, run), analysed: (context) => this.analyse(step, run, context) };
  }

  /** Does a work that asks for analyses, reading the traces that it turns out to want, and keeps what was made. */
  async whileReading<T>(work: () => T): Promise<T> {
    for (;;) {
      try {
        const done = work();
        for (const { run, inputs, analysis } of this.fresh.splice(0)) await storeAnalysis(run.id, inputs, analysis);
        return done;
      } catch (error) {
        if (!(error instanceof TraceWanted)) throw error;
        this.traces.set(error.run.id, (await readTrace(error.run.id)).trace);
      }
    }
  }

  private analyse(step: JudgedStep, run: Run, context: StepContext<unknown>): StepAnalysis {
    const inputs = inputsOf(context);
    const key = `${run.id} ${inputs}`;
    const known = this.known.get(key);
    if (known) return known;
    const analysis = analysisOf(step, this.read(step, run, context), context);
    this.traces.delete(run.id);
    this.known.set(key, analysis);
    // A trace that still grows comes to something else in a moment.
    if (run.state !== 'recording') this.fresh.push({ run, inputs, analysis });
    return analysis;
  }

  private read(step: JudgedStep, run: Run, context: StepContext<unknown>): Given {
    if (run.readings) return { readings: run.readings, standIn: run.context.standIn };
    const trace = this.traces.get(run.id);
    if (!trace) throw new TraceWanted(run);
    // A file may be another unit's, or another step's.
    const suspicious = run.context.source === 'log file' && step.kind === 'measured';
    return suspicious ? { trace, said: suspectLog(sheetOf(this.job).kind, step, trace, context) } : { trace };
  }
}
