import { randomUUID } from 'node:crypto';
import { makeCard, type FloorRow } from '@/data/floor-cards';
import type { Shop } from '../shop/shop-now';
import type { MadeCard } from './make-floor-card';

interface Making {
  readonly mark: string;
  readonly epoch: string;
  /** When its mark stood in the book, ms of the process; null until then. */
  begunAt: number | null;
  /** When it came to nothing, ms of the process; null where it has not. */
  failedAt: number | null;
  readonly card: Promise<MadeCard>;
}

// One for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalCards?: Map<string, Making> };
const making = (): Map<string, Making> => (shared.hardPedalCards ??= new Map());

/** A card as it was kept, as it is made now, or that it is still being made: a log of an hour takes its time. */
export type CardAtOnce = { readonly kind: 'made'; readonly card: MadeCard } | { readonly kind: 'being-judged' };

/** A job that cannot be judged is not tried again sooner, ms: it is said to be broken meanwhile, and no thread works on it in vain. */
const triedAgainAfter = 30_000;

/** Whether what is being made is made of everything that its job and the shop held when the floor was read, at `readAt`. */
function holds({ mark, epoch, begunAt, failedAt }: Making, row: FloorRow, asked: { epoch: string; readAt: number }) {
  if (epoch !== asked.epoch) return false;
  if (failedAt !== null) return row.making === mark && asked.readAt < failedAt + triedAgainAfter;
  return row.making === mark || begunAt === null || asked.readAt < begunAt;
}

function begin({ id }: FloorRow, epoch: string, shop: Shop): Making {
  const mark = `making ${randomUUID()}`;
  const begun: Making = {
    mark,
    epoch,
    begunAt: null,
    failedAt: null,
    card: makeCard(id, { mark, epoch }, async () => {
      begun.begunAt = performance.now();
      // What makes cards is loaded where one is wanted.
      const { makeFloorCard } = await import('./make-floor-card');
      return makeFloorCard(id, shop);
    }).then(
      (card) => {
        if (making().get(id) === begun) making().delete(id);
        return card;
      },
      (error: unknown) => {
        begun.failedAt = performance.now();
        throw error;
      },
    ),
  };
  making().set(id, begun);
  return begun;
}

/**
 * The card of a job on the floor, which waits `patience` ms for it at the most. All that ask for one that is being made wait for the same
 * making. Rejects where a job cannot have one.
 */
export async function cardAtOnce(
  row: FloorRow,
  { epoch, shop, readAt, patience }: { epoch: string; shop: Shop; readAt: number; patience: number },
): Promise<CardAtOnce> {
  if (row.kept?.epoch === epoch) return { kind: 'made', card: JSON.parse(row.kept.card) as MadeCard };
  const under = making().get(row.id);
  const { card } = under && holds(under, row, { epoch, readAt }) ? under : begin(row, epoch, shop);
  const made = card.then((each) => ({ kind: 'made', card: each }) as const);
  if (patience === Infinity) return made;
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<CardAtOnce>((resolve) => {
    timer = setTimeout(() => resolve({ kind: 'being-judged' }), patience);
  });
  // What comes of it later stands on the next floor; an error is said there.
  return Promise.race([made, late]).finally(() => {
    clearTimeout(timer);
    made.catch(() => undefined);
  });
}
