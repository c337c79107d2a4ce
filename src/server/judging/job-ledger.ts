import { rankingVersion } from '@/core/diagnosis/ranking-version';
import { methodVersion } from '@/core/judging/method-version';
import { createHash } from 'node:crypto';
import { type Ledger } from '@/core/diagnosis/ledger';
import { mendedFaults } from '@/core/judging/verification';
import type { Lock } from '@/core/procedure/interlock';
import type { JobRecord } from '@/data/job-record';
import { storeLedger } from '@/data/kept-results';
import { contextOf, sheetOf } from '../context/job-context';
import { workUpTo } from '../context/rounds';
import { readSignatures } from '../context/signature-file';
import type { Shop } from '../shop/shop-now';
import { heavy } from '../threads/pool';
import type { JobEvaluation } from './evaluate-job';

/** What a job's ledger is made from. */
export interface LedgerFrom {
  readonly shop: Shop;
  readonly evaluated: JobEvaluation;
  /** What keeps steps of its plan shut. */
  readonly locks: ReadonlyMap<string, Lock>;
}

/**
 * The ledger of a job's last round: read back where nothing has changed, made on a thread where something has. Null for a kind that has
 * no table of signatures.
 */
async function ledgerOfJob({ job }: JobRecord, { shop, evaluated, locks }: LedgerFrom): Promise<Ledger | null> {
  const { kind } = sheetOf(job);
  const table = readSignatures(kind, job.plan);
  if (!table) return null;
  const { evaluation, runs, repairs } = evaluated;
  const openers = [...locks].map(([step, lock]) => [step, lock.step] as const);
  const prevalences = shop.prevalences[kind.family] ?? {};
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
  if (evaluated.ledger?.inputs === inputs) return evaluated.ledger.ledger;
  const latest = runs.at(-1);
  const context = contextOf(job, latest?.context.site ?? shop.site, latest?.startedAt ?? job.bookedAt);
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
  record: JobRecord,
  from: LedgerFrom,
): Promise<{ readonly ledger: Ledger | null; readonly ledgerTrouble: LedgerTrouble | null }> {
  try {
    const ledger = await ledgerOfJob(record, from);
    return { ledger, ledgerTrouble: ledger ? null : 'no-table' };
  } catch (error) {
    console.error(`job ${record.job.number}`, error);
    return { ledger: null, ledgerTrouble: 'broken' };
  }
}
