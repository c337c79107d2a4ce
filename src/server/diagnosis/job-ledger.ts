import { createHash } from 'node:crypto';
import { rankingVersion, type Ledger } from '@/core/diagnosis/ledger';
import { methodVersion } from '@/core/judging/evaluate-unit';
import { mendedFaults } from '@/core/judging/verification';
import type { Job } from '@/data/jobs';
import { findLedger, storeLedger } from '@/data/kept-results';
import { readPrevalences } from '@/data/settings';
import type { JobEvaluation } from '../jobs/evaluate-job';
import { contextOf, sheetOf, siteNow } from '../jobs/job-context';
import { workUpTo } from '../jobs/rounds';
import { locksOf } from '../runs/interlocks';
import { heavy } from '../threads/pool';
import { readSignatures } from './signature-file';

type Evaluated = Pick<JobEvaluation, 'evaluation' | 'inputs' | 'runs' | 'repairs'>;

/**
 * The ledger of a job's last round: read back where nothing has changed, made on a thread where something has. Null for a kind that has
 * no table of signatures.
 */
export async function ledgerOfJob(job: Job, evaluated: Evaluated): Promise<Ledger | null> {
  const { kind } = sheetOf(job);
  const table = readSignatures(kind, job.plan);
  if (!table) return null;
  const { evaluation, runs, repairs } = evaluated;
  const openers = [...(await locksOf(job))].map(([step, lock]) => [step, lock.step] as const);
  const prevalences = (await readPrevalences())[kind.family] ?? {};
  const mended = mendedFaults(kind, workUpTo(repairs, repairs.length + 1));
  const asked = [
    rankingVersion,
    methodVersion,
    table.madeFrom,
    evaluated.inputs,
    job.symptoms,
    prevalences,
    mended,
    openers,
  ];
  const inputs = createHash('sha256').update(JSON.stringify(asked)).digest('hex');
  const known = await findLedger(job.id, inputs);
  if (known) return known as Ledger;
  const latest = runs.at(-1);
  const context = contextOf(job, latest?.context.site ?? (await siteNow()), latest?.startedAt ?? job.bookedAt);
  const ledger = await heavy('ledger', {
    sheet: job.sheet,
    context,
    // What was found in the traces is not needed to rank: only what it came to.
    steps: evaluation.steps.map((step) => ({ ...step, analyses: [] })),
    symptoms: job.symptoms,
    prevalences,
    mended,
    openers,
  });
  await storeLedger(job.id, inputs, ledger);
  return ledger;
}

/** Why there is no ledger: nobody has made this kind's table, or the work itself broke. */
export type LedgerTrouble = 'no-table' | 'broken';

/** The ledger, or why there is none; one that cannot be made takes no page with it. */
export async function ledgerOr(
  job: Job,
  evaluated: Evaluated,
): Promise<{ readonly ledger: Ledger | null; readonly ledgerTrouble: LedgerTrouble | null }> {
  try {
    const ledger = await ledgerOfJob(job, evaluated);
    return { ledger, ledgerTrouble: ledger ? null : 'no-table' };
  } catch (error) {
    console.error(`job ${job.number}`, error);
    return { ledger: null, ledgerTrouble: 'broken' };
  }
}
