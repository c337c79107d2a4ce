import * as z from 'zod';
import type { SeverityFit } from '@/core/diagnosis/fit-severity';
import { correctionsBefore, type StepEvaluation } from '@/core/judging/evaluate-unit';
import type { StepContext } from '@/core/procedure/step-context';
import { onSameAxes, type ComparedLine } from '@/core/pictures/compared-line';
import type { ActiveFault } from '@/core/physics/plant';
import type { Run } from '@/data/runs';
import { RequestRefused } from '../http/refused';
import { judgedJob } from '../judging/judged-job';
import { isOfStep } from '../context/answered-steps';
import { contextOf, sheetOf } from '../context/job-context';
import { speaksNow } from '../context/rounds';
import { heavy } from '../threads/pool';

export const compareSchema = z.object({
  step: z.string().max(80),
  /** Faults whose curve is drawn as well: `id:severity`, joined by a plus. */
  expected: z
    .string()
    .max(200)
    .regex(/^[a-z0-9-]+:[01](?:\.\d+)?(?:\+[a-z0-9-]+:[01](?:\.\d+)?)*$/, 'A fault and its severity from 0 to 1')
    .optional(),
  /** Whether the severity of a fault that stands alone is fitted to what was measured, before it is drawn. */
  fit: z.literal('yes').optional(),
});

/** A step as it was found, as it was before the repair, and as a fault would draw it; a line that nobody recorded is left out. */
export interface StepComparison {
  readonly step: string;
  readonly title: string;
  readonly now: ComparedLine | null;
  readonly before: ComparedLine | null;
  readonly expected: ComparedLine | null;
  /** How much of the fault there is, fitted to what was measured; null where more than one is drawn, or nothing says so. */
  readonly fitted: SeverityFit | null;
}

function faultsOf(text: string | undefined): readonly ActiveFault[] {
  return (text ?? '').split('+').flatMap((each) => {
    const [id, severity] = each.split(':');
    return id === '' ? [] : [{ id, severity: Number(severity) }];
  });
}

/** The severity of a fault that stands alone, by the unit's own model. */
async function fittedTo(
  jobId: string,
  context: StepContext<unknown>,
  evaluations: readonly StepEvaluation[],
  faults: readonly ActiveFault[],
): Promise<SeverityFit | null> {
  if (faults.length !== 1) return null;
  // Only what it came to is fitted: traces and events stay where they are.
  const steps = evaluations.map((step) => ({ ...step, analyses: [] }));
  return heavy('fitted', { jobId, context, steps, fault: faults[0].id });
}

export async function compareStep(jobId: string, asked: z.infer<typeof compareSchema>): Promise<StepComparison> {
  const { record, shop, evaluated } = await judgedJob(jobId);
  const { job } = record;
  const { kind } = sheetOf(job);
  const step = kind.steps.find((each) => each.id === asked.step);
  if (!step) throw new RequestRefused(404, 'This unit has no such step.');
  const { evaluation, past, runs } = evaluated;
  const corrections = correctionsBefore(evaluation.steps, step.id);
  const last = runs
    .filter((run) => isOfStep(job, run, step.id) && run.state === 'kept' && run.struckOut === null)
    .at(-1);
  const now = last && speaksNow(last, evaluated) ? last : undefined;
  const before = runs.find((run) => run.id === past.at(-1)?.runs[step.id]);
  const linesOf = (run: Run | undefined) => {
    if (!run || run.readings !== null || run.findings !== null) return [];
    return heavy('compared', {
      runId: run.id,
      step: asked.step,
      context: { ...contextOf(job, run.context.site, run.startedAt), corrections },
    });
  };
  const faults = faultsOf(asked.expected);
  const strange = faults.find(({ id }) => !kind.model.faults.some((fault) => fault.id === id));
  if (strange) throw new RequestRefused(404, 'This unit has no such fault.');
  const context = contextOf(job, last?.context.site ?? shop.site, last?.startedAt ?? job.bookedAt);
  const fitted = asked.fit ? await fittedTo(jobId, context, evaluation.steps, faults) : null;
  const drawnWith = fitted ? [{ id: fitted.fault, severity: fitted.severity }] : faults;
  const lines = onSameAxes([
    await linesOf(now),
    before?.id === now?.id ? [] : await linesOf(before),
    faults.length > 0 ? await heavy('expected', { jobId, step: step.id, context, faults: drawnWith }) : [],
  ]);
  return {
    step: step.id,
    title: step.title,
    now: lines[0],
    before: lines[1],
    expected: lines[2],
    fitted,
  };
}
