import { createHash } from 'node:crypto';
import { analysisOf, type Given, type JudgedStep, type RunSetting } from '@/core/judging/evaluate-unit';
import type { StepAnalysis } from '@/core/procedure/step-analysis';
import type { StepContext } from '@/core/procedure/step-context';
import type { Job } from '@/data/jobs';
import { listAnalyses, storeAnalyses, type KeptAnalysis } from '@/data/kept-results';
import type { Run } from '@/data/runs';
import { heavy, type Slot } from '../threads/pool';
import { contextOf } from '../context/job-context';

/** An analysis that has to be made before what follows from it can be told. */
class AnalysisMissing extends Error {
  constructor(
    readonly run: Run,
    readonly step: string,
    readonly context: StepContext<unknown>,
  ) {
    super(`the analysis of run ${run.id} is missing`);
  }
}

/** What a run is read with apart from its own record: what earlier steps found out about the bench, and what the workshop asks for. */
function inputsOf(run: Run, step: string, context: StepContext<unknown>): string {
  const { corrections, workshopLimits, schools, plan } = context;
  // A log may answer other steps than the one that it was brought for.
  const asked = step === run.step ? [] : [step];
  return createHash('sha256')
    .update(JSON.stringify([corrections, workshopLimits, schools, plan, ...asked]))
    .digest('hex');
}

/** What a run was recorded with. */
export function settingOf(job: Job, run: Run): RunSetting {
  const context = contextOf(job, run.context.site, run.startedAt);
  const { ambient, airTemperature, shell, benchVolume, instruments, date } = context;
  return { ambient, airTemperature, shell, benchVolume, instruments, date };
}

/** A log may be an hour of a drive. */
const slotOf = ({ context }: Run): Slot => (context.source === 'log file' ? 'long' : 'short');

/** What the runs of a job came to: kept ones are read back, others made from their traces and kept. */
export class RunAnalyses {
  private readonly known = new Map<string, StepAnalysis>();
  private readonly fresh: KeptAnalysis[] = [];

  private constructor(
    private readonly job: Job,
    private readonly keeps: boolean,
  ) {}

  /** `kept`: what fits is read back, what is made is kept; `aside`: it is read back and not kept; `traces`: all of it is made. */
  static async of(job: Job, runs: readonly Run[], how: 'kept' | 'aside' | 'traces'): Promise<RunAnalyses> {
    const analyses = new RunAnalyses(job, how === 'kept');
    if (how === 'traces') return analyses;
    for (const { runId, inputs, analysis } of await listAnalyses(runs.map((run) => run.id)))
      analyses.known.set(`${runId} ${inputs}`, analysis);
    return analyses;
  }

  /** A run as evidence for a step, by what held when it was recorded. */
  given(step: JudgedStep, run: Run): Given {
    return { setting: settingOf(this.job, run), analysed: (context) => this.analyse(step, run, context) };
  }

  /** Does a work that asks for analyses, has those made that it turns out to want, and keeps them. */
  async whileReading<T>(work: () => T, signal?: AbortSignal): Promise<T> {
    for (;;) {
      try {
        const done = work();
        await storeAnalyses(this.fresh.splice(0));
        return done;
      } catch (error) {
        if (!(error instanceof AnalysisMissing)) throw error;
        const { run, step, context } = error;
        this.keep(run, step, context, await heavy('analyse', { runId: run.id, step, context }, signal, slotOf(run)));
      }
    }
  }

  private keep(run: Run, step: string, context: StepContext<unknown>, analysis: StepAnalysis): StepAnalysis {
    const inputs = inputsOf(run, step, context);
    this.known.set(`${run.id} ${inputs}`, analysis);
    // A trace that still grows comes to something else in a moment.
    if (this.keeps && run.state !== 'recording') this.fresh.push({ runId: run.id, inputs, analysis });
    return analysis;
  }

  private analyse(step: JudgedStep, run: Run, context: StepContext<unknown>): StepAnalysis {
    const known = this.known.get(`${run.id} ${inputsOf(run, step.id, context)}`);
    if (known) return known;
    if (!run.readings) throw new AnalysisMissing(run, step.id, context);
    return this.keep(
      run,
      step.id,
      context,
      analysisOf(step, { readings: run.readings, standIn: run.context.standIn }, context),
    );
  }
}
