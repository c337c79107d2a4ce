import { z } from 'zod';
import { methodVersion, type UnitEvaluation } from '@/core/judging/evaluate-unit';
import type { StepAnalysis } from '@/core/procedure/step-analysis';
import { database } from './database';
import { fromStored, toStored } from './stored-json';

/**
 * What is kept here can be made again: a full disk, or a row that makes no sense, costs time and no page. `otherwise` is what stands
 * for an answer that did not come.
 */
async function atBest<T>(work: () => Promise<T>, otherwise: T): Promise<T> {
  try {
    return await work();
  } catch (error) {
    console.error('a kept result is left out:', error);
    return otherwise;
  }
}

/** What a run's trace or readings came to by today's method, by the hash of what it was read with. */
export async function listAnalyses(
  runIds: readonly string[],
): Promise<readonly { readonly runId: string; readonly inputs: string; readonly analysis: StepAnalysis }[]> {
  return atBest(async () => {
    const rows = (await (
      await database()
    )('analyses')
      .whereIn('run_id', [...runIds])
      .where({ method_version: methodVersion })) as { run_id: string; inputs: string; analysis: string }[];
    return rows.map(({ run_id, inputs, analysis }) => ({
      runId: run_id,
      inputs,
      analysis: fromStored(analysis) as StepAnalysis,
    }));
  }, []);
}

export async function storeAnalysis(runId: string, inputs: string, analysis: StepAnalysis): Promise<void> {
  await atBest(
    async () =>
      void (await (
        await database()
      )('analyses')
        .insert({ run_id: runId, inputs, method_version: methodVersion, analysis: toStored(analysis) })
        .onConflict(['run_id', 'inputs', 'method_version'])
        .merge()),
    undefined,
  );
}

export interface StoredEvaluation {
  /** Another method than today's made it: good enough to be looked at while today's is at work, and for nothing else. */
  readonly former: boolean;
  readonly evaluation: UnitEvaluation;
  /** What came before the last repair, and what is due since; null where an edition kept it that knew of no rounds. */
  readonly rounds: unknown;
  /** The small picture that belongs to it, as the screens write it; null where none was drawn yet. */
  readonly face: unknown;
}

/** As much of an evaluation as whoever reads it back cannot do without. */
const evaluationShape = z.looseObject({
  verdict: z.string(),
  steps: z.array(z.looseObject({ step: z.string(), verdict: z.string(), analyses: z.array(z.unknown()) })),
});

/** A job's evaluation from these inputs, by whichever method; undefined where it has to be made. */
export async function findEvaluation(jobId: string, inputs: string): Promise<StoredEvaluation | undefined> {
  return atBest(async () => {
    const row = (await (await database())('evaluations').where({ job_id: jobId, inputs }).first()) as
      { method_version: number; evaluation: string; face: string | null; rounds: string | null } | undefined;
    if (!row) return undefined;
    const evaluation = fromStored(row.evaluation);
    // What cannot be read back is made again, and what it said before is not known.
    if (!evaluationShape.safeParse(evaluation).success) return undefined;
    return {
      former: row.method_version !== methodVersion,
      evaluation: evaluation as UnitEvaluation,
      rounds: row.rounds === null ? null : fromStored(row.rounds),
      face: row.face === null ? null : fromStored(row.face),
    };
  }, undefined);
}

/** Keeps a job's evaluation in place of the one before. */
export async function storeEvaluation(
  jobId: string,
  inputs: string,
  { evaluation, rounds }: Pick<StoredEvaluation, 'evaluation' | 'rounds'>,
): Promise<void> {
  const row = {
    job_id: jobId,
    inputs,
    method_version: methodVersion,
    evaluation: toStored(evaluation),
    rounds: toStored(rounds),
    face: null,
    ledger: null,
    ledger_inputs: null,
  };
  await atBest(
    async () => void (await (await database())('evaluations').insert(row).onConflict('job_id').merge()),
    undefined,
  );
}

export async function storeFace(jobId: string, inputs: string, face: unknown): Promise<void> {
  await (
    await database()
  )('evaluations')
    .where({ job_id: jobId, inputs })
    .update({ face: toStored(face) });
}

/** What a job's ledger came to from these inputs; undefined where it has to be made. */
export async function findLedger(jobId: string, inputs: string): Promise<unknown> {
  return atBest(async () => {
    const row = (await (await database())('evaluations').where({ job_id: jobId, ledger_inputs: inputs }).first()) as
      { ledger: string | null } | undefined;
    return row?.ledger ? fromStored(row.ledger) : undefined;
  }, undefined);
}

/** Ledgers of several jobs as they were made last, whatever was found since; by job. */
export async function listLedgers(jobIds: readonly string[]): Promise<ReadonlyMap<string, unknown>> {
  return atBest(async () => {
    const rows = (await (
      await database()
    )('evaluations')
      .whereIn('job_id', [...jobIds])
      .whereNotNull('ledger')
      .select('job_id', 'ledger')) as { job_id: string; ledger: string }[];
    return new Map(rows.map((row) => [row.job_id, fromStored(row.ledger)] as const));
  }, new Map<string, unknown>());
}

export async function storeLedger(jobId: string, inputs: string, ledger: unknown): Promise<void> {
  await atBest(
    async () =>
      void (await (
        await database()
      )('evaluations')
        .where({ job_id: jobId })
        .update({ ledger: toStored(ledger), ledger_inputs: inputs })),
    undefined,
  );
}
