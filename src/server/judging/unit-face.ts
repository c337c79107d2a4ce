import { planOf, supplyOf } from '@/core/contract/kind';
import type { FaceCurves } from '@/core/pictures/face-paths';
import { staircaseTolerance } from '@/core/pictures/staircase-tolerance';
import { toleranceBand } from '@/core/pictures/tolerance-band';
import { pictureOf, type Picture } from '@/core/procedure/picture';
import type { StepContext } from '@/core/procedure/step-context';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import type { JobRecord } from '@/data/job-record';
import type { Job } from '@/data/jobs';
import { storeFace } from '@/data/kept-results';
import type { Run } from '@/data/runs';
import { heavy } from '../threads/pool';
import type { JobEvaluation } from './evaluate-job';
import { isOfStep } from '../context/answered-steps';
import { contextOf, sheetOf } from '../context/job-context';
import type { Shop } from '../shop/shop-now';
import { speaksNow } from '../context/rounds';

/** The small picture of a unit: its decisive test over the band it should lie in, SI. */
export type Face = FaceCurves;

async function faceOf(job: Job, evaluated: JobEvaluation, shop: Shop): Promise<Face> {
  const { evaluation, runs } = evaluated;
  const { pair } = evaluation.corrections;
  const { kind, unit } = sheetOf(job);
  const run = runs
    .filter(
      (each) => isOfStep(job, each, planOf(kind, job.plan).face) && each.state === 'kept' && each.struckOut === null,
    )
    .filter((each) => speaksNow(each, evaluated))
    .at(-1);
  const site = run?.context.site ?? shop.site;
  const context = contextOf(job, site, run?.startedAt ?? job.bookedAt);
  const step = kind.steps.find((each) => each.id === planOf(kind, job.plan).face);
  const strokes = step?.kind === 'measured' ? pictureOf(step.pictures, 'steps') : undefined;
  if (step?.kind === 'measured' && strokes) return staircaseFace(step, strokes.predict, context, run);
  const supply = supplyOf(kind, context);
  const { input, low, high } = toleranceBand(kind.curve, unit, () => supply, context);
  const measured =
    run && !run.readings
      ? await heavy('curve', {
          runId: run.id,
          context,
          pair,
          points: 60,
        })
      : null;
  return { input, low, high, measured };
}

/** A staircase as a face: one flat step a stroke, its band where a sound unit's output lies. */
async function staircaseFace(
  step: MeasuredStep<unknown>,
  predict: Extract<Picture<unknown>, { kind: 'steps' }>['predict'],
  context: StepContext<unknown>,
  run: Run | undefined,
): Promise<Face> {
  const analysis = run && !run.readings ? await heavy('analyse', { runId: run.id, step: step.id, context }) : null;
  const predicted = predict(context, analysis).strokes;
  const flat = <T>(each: (output: number) => T) => predicted.flatMap(({ output }) => [each(output), each(output)]);
  const treads = (outputs: readonly number[]) =>
    outputs.flatMap((output, at) => [[at, output] as const, [at + 1, output] as const]);
  return {
    input: predicted.flatMap((_, at) => [at, at + 1]),
    low: flat((output) => output * (1 - staircaseTolerance)),
    high: flat((output) => output * (1 + staircaseTolerance)),
    measured: analysis?.strokes
      ? { apply: treads(analysis.strokes.map((stroke) => stroke.output)), wayBack: [] }
      : null,
  };
}

/** The job's face: read back where it was kept with the evaluation, drawn where it was not. One that hangs on today's air is not kept. */
export async function keptFace({ job }: JobRecord, evaluated: JobEvaluation, shop: Shop): Promise<Face> {
  const { runs, inputs, face } = evaluated;
  if (face !== null) return face as Face;
  const drawn = await faceOf(job, evaluated, shop);
  if (runs.some((run) => run.state === 'kept')) await storeFace(job.id, inputs, drawn);
  return drawn;
}
