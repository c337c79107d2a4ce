import { methodVersion } from '@/core/judging/method-version';
import * as z from 'zod';
import { type UnitEvaluation } from '@/core/judging/evaluate-unit';
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
export interface KeptAnalysis {
  readonly runId: string;
  readonly inputs: string;
  readonly analysis: StepAnalysis;
}

export async function listAnalyses(runIds: readonly string[]): Promise<readonly KeptAnalysis[]> {
  if (runIds.length === 0) return [];
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

/** Keeps analyses, each in place of the one before; all of them at once. */
export async function storeAnalyses(analyses: readonly KeptAnalysis[]): Promise<void> {
  if (analyses.length === 0) return;
  const rows = analyses.map(({ runId, inputs, analysis }) => ({
    run_id: runId,
    inputs,
    method_version: methodVersion,
    analysis: toStored(analysis),
  }));
  await atBest(
    async () =>
      void (await (
        await database()
      )('analyses')
        .insert(rows)
        .onConflict(['run_id', 'inputs', 'method_version'])
        .merge()),
    undefined,
  );
}

/** Analyses of methods before today's: nobody reads them again. */
export async function pruneAnalyses(): Promise<void> {
  await atBest(
    async () => void (await (await database())('analyses').where('method_version', '<', methodVersion).delete()),
    undefined,
  );
}

/** What a job came to when it was last judged. */
export interface KeptEvaluation {
  /** Hash of what it was made from. */
  readonly inputs: string;
  /** Another method than today's made it: good enough to be looked at while today's is at work, and for nothing else. */
  readonly former: boolean;
  readonly evaluation: UnitEvaluation;
  /** What came before the last repair, and what is due since; null where an edition kept it that knew of no rounds. */
  readonly rounds: unknown;
  /** The small picture that belongs to it, as the screens write it; null where none was drawn yet. */
  readonly face: unknown;
  /** The ledger and the hash of what it was made from; null where there is none. */
  readonly ledger: { readonly inputs: string; readonly ledger: unknown } | null;
}

const rowShape = z.object({
  inputs: z.string(),
  method_version: z.number(),
  evaluation: z.string(),
  rounds: z.string().nullable(),
  face: z.string().nullable(),
  ledger: z.string().nullable(),
  ledger_inputs: z.string().nullable(),
});

/** As much of an evaluation as whoever reads it back cannot do without. */
const evaluationShape = z.looseObject({
  verdict: z.string(),
  steps: z.array(z.looseObject({ step: z.string(), verdict: z.string(), analyses: z.array(z.unknown()) })),
});

/** What is kept of a job, by whichever method and from whatever inputs; undefined where it has to be made. */
export async function findEvaluation(jobId: string): Promise<KeptEvaluation | undefined> {
  return atBest(async () => {
    const row: unknown = await (await database())('evaluations').where({ job_id: jobId }).first();
    if (row === undefined) return undefined;
    const { inputs, method_version, evaluation: text, rounds, face, ledger, ledger_inputs } = rowShape.parse(row);
    const evaluation = fromStored(text);
    // What cannot be read back is made again, and what it said before is not known.
    if (!evaluationShape.safeParse(evaluation).success) return undefined;
    return {
      inputs,
      former: method_version !== methodVersion,
      evaluation: evaluation as UnitEvaluation,
      rounds: rounds === null ? null : fromStored(rounds),
      face: face === null ? null : fromStored(face),
      ledger: ledger === null || ledger_inputs === null ? null : { inputs: ledger_inputs, ledger: fromStored(ledger) },
    };
  }, undefined);
}

/** Keeps a job's evaluation in place of the one before. */
export async function storeEvaluation(
  jobId: string,
  { inputs, evaluation, rounds }: Pick<KeptEvaluation, 'inputs' | 'evaluation' | 'rounds'>,
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
  await atBest(
    async () =>
      void (await (
        await database()
      )('evaluations')
        .where({ job_id: jobId, inputs })
        .update({ face: toStored(face) })),
    undefined,
  );
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
