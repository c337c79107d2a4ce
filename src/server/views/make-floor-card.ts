import { facePaths, type FacePaths } from '@/core/pictures/face-paths';
import { probabilityText } from '@/core/wording/ledger-text';
import type { UnitVerdict } from '@/core/vocabulary/verdict';
import { loadJobRecord, type JobRecord } from '@/data/job-record';
import { lookUpJob } from '@/data/jobs';
import { contextOf, sheetOf, stepTitle } from '../context/job-context';
import { channelsOf } from '../context/step-channels';
import { behindOf } from '../judging/behind';
import { blockingOf } from '../judging/blocking';
import { conclusionOf } from '../judging/conclusion';
import { evaluateJob, evaluationOnRecord, type JobEvaluation } from '../judging/evaluate-job';
import { locksOf } from '../judging/interlocks';
import { ledgerOr } from '../judging/job-ledger';
import { keptFace } from '../judging/unit-face';
import type { Shop } from '../shop/shop-now';
import { likeliestOf } from './job-view';
import { judgeAnew } from './judge-anew';

/** What a card says of a unit beside what the book says of it: it stands until something on its record changes. */
export interface MadeCard {
  readonly verdict: UnitVerdict;
  readonly steps: { readonly done: number; readonly of: number };
  /** Titles of the first step that failed, and of the first that is undecided. */
  readonly failed: string | null;
  readonly undecided: string | null;
  readonly conclusion: string | null;
  /** The likeliest fault and how likely it is, in words; null while nothing that was measured says so. */
  readonly likeliest: string | null;
  readonly blocked: boolean;
  readonly face: FacePaths;
  /** Titles of its steps by id, for a run that is open. */
  readonly titles: Readonly<Record<string, string>>;
  /** Channels that its steps are read on. */
  readonly channels: readonly string[];
}

/** Why a job has no card. */
export class NoCard extends Error {}

const faceSize = { width: 96, height: 68 };

async function cardFrom(record: JobRecord, evaluated: JobEvaluation, shop: Shop): Promise<MadeCard> {
  const { job } = record;
  const { kind } = sheetOf(job);
  const { evaluation } = evaluated;
  const locks = await locksOf(record, { shop, evaluated });
  const { ledger } = await ledgerOr(record, { shop, evaluated, locks });
  const titleWith = (verdict: string) => {
    const step = evaluation.steps.find((each) => each.verdict === verdict);
    return step ? stepTitle(job, step.step) : null;
  };
  const context = contextOf(job, shop.site, job.bookedAt);
  const own = kind.steps.filter((step) => evaluation.steps.some((each) => each.step === step.id));
  const likeliest = likeliestOf(job, evaluated, ledger);
  return {
    verdict: evaluation.verdict,
    steps: {
      done: evaluation.steps.filter(({ verdict }) => verdict !== 'not-run').length,
      of: evaluation.steps.length,
    },
    failed: titleWith('fail'),
    undecided: titleWith('undecided'),
    conclusion: conclusionOf(job, evaluation)?.title ?? null,
    likeliest: likeliest && `${likeliest.title}: ${probabilityText(likeliest.probability, likeliest)}`,
    blocked: blockingOf(record, { evaluation, behind: await behindOf(record, shop) }).length > 0,
    face: facePaths(await keptFace(record, evaluated, shop), faceSize),
    titles: Object.fromEntries(own.map(({ id, title }) => [id, title])),
    channels: [...new Set(own.flatMap((step) => channelsOf(step, context)))],
  };
}

/**
 * A job's card: what is on record of it, by whichever method, rather than nothing for as long as another method takes. One that another
 * method made is not to be kept.
 */
export async function makeFloorCard(jobId: string, shop: Shop): Promise<{ card: MadeCard; keep: boolean }> {
  const looked = await lookUpJob(jobId);
  const damage = looked.kind === 'unreadable' ? looked.fields : [];
  if (damage.length > 0) throw new NoCard(`Its record is damaged (${damage.join(', ').replaceAll('_', ' ')}).`);
  const record = await loadJobRecord(jobId);
  if (!record) throw new NoCard('It is not in the book any more.');
  const damaged = [...new Set(record.broken.map(({ of }) => of))];
  if (damaged.some((of) => of === 'run' || of === 'repair'))
    throw new NoCard(`A ${damaged.join(' and a ')} on its record cannot be read.`);
  const known = await evaluationOnRecord(record, shop);
  if (known && !known.former) return { card: await cardFrom(record, known, shop), keep: true };
  if (known && judgeAnew(record.job, known.inputs)) {
    // What another method wrote may not be what this one reads.
    const card = await cardFrom(record, known, shop).catch(() => null);
    if (card) return { card, keep: false };
  }
  return { card: await cardFrom(record, await evaluateJob(record, shop), shop), keep: true };
}
