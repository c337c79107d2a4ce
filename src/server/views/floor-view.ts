import { createHash } from 'node:crypto';
import { rankingVersion } from '@/core/diagnosis/ranking-version';
import { methodVersion } from '@/core/judging/method-version';
import { calibrationState } from '@/core/instruments/instrument';
import { instrumentFromSite } from '@/core/formats/site-instrument';
import { floorRows, makeCard, openRuns, recentActs, type FloorRow, type LeftRow } from '@/data/floor-cards';
import type { Place } from '@/data/jobs';
import { dayAgo } from '../context/day-ago';
import { recordingNow } from '../recording/recording-now';
import { loadShop, type Shop } from '../shop/shop-now';
import { judgingAnew, type JudgingAnew } from './judging-queue';
import type { MadeCard } from './make-floor-card';
import { shownOpen, type OpenRun } from './open-run';
import { undoableOf, type Undoable } from './undoable';

/** What the floor shows of a job, and no more: it is there at once for every unit in the house. */
export interface FloorCard extends Omit<MadeCard, 'titles' | 'channels'> {
  readonly job: {
    readonly id: string;
    readonly serial: string;
    readonly vehicle: string;
    readonly complaint: string;
    readonly promisedAt: string | null;
    readonly place: Place;
    readonly sheet: { readonly name: string };
  };
  /** The run that is recorded or waits to be kept, with the title of its step. */
  readonly openRun: (OpenRun & { readonly title: string }) | null;
  /** Instruments that its steps are read with although their calibration is overdue. */
  readonly overdue: readonly string[];
}

/** A job that cannot be shown, with what is wrong with it. */
export interface BrokenJob {
  readonly id: string;
  readonly number: number | null;
  readonly serial: string;
  readonly why: string;
}

/** A job that has left the floor within the day, by a move or by being taken out, and can be brought back. */
export interface LeftJob {
  readonly id: string;
  readonly number: number;
  readonly serial: string;
  readonly undoable: Undoable;
}

export interface FloorView {
  readonly jobs: readonly FloorCard[];
  readonly broken: readonly BrokenJob[];
  readonly left: readonly LeftJob[];
  /** Jobs that another method is judging anew in the background; null where none is. */
  readonly judging: JudgingAnew | null;
  /** What of the workshop’s own settings cannot be read. */
  readonly unreadable: Shop['broken'];
  /** Whether a time zone was set; the machine's own is taken until then. */
  readonly zoneSet: boolean;
  /** When the clock was seen to have run back within the day, and by how much, s; latest first. */
  readonly clockRanBack: readonly { readonly at: string; readonly seconds: number }[];
}

/** What every card hangs on besides its job. */
function epochOf({ settings, site, prevalences }: Shop): string {
  const { policy } = settings;
  const hangsOn = [methodVersion, rankingVersion, policy, site, prevalences];
  return createHash('sha256').update(JSON.stringify(hangsOn)).digest('hex');
}

/** Jobs that have left the floor within the day, latest first. */
function leftToday(rows: readonly LeftRow[]): LeftJob[] {
  return rows
    .flatMap(({ id, number, serial, place, takenOutAt, acts }): LeftJob[] => {
      const job = { place, takenOutAt } as Parameters<typeof undoableOf>[0]['job'];
      const undoable = undoableOf({ job, runs: [], repairs: [], acts }, (step) => step).find(
        ({ what }) => what === (takenOutAt === null ? 'moved' : 'taken-out'),
      );
      return undoable ? [{ id, number, serial, undoable }] : [];
    })
    .sort((p, q) => q.undoable.act - p.undoable.act);
}

/** Instruments mounted today whose calibration is overdue, by channel. */
function overdueNow({ site, today }: Shop): ReadonlyMap<string, string> {
  return new Map(
    (site.instruments ?? [])
      .map(instrumentFromSite)
      .filter((instrument) => calibrationState(instrument, today).kind === 'overdue')
      .map(({ channel, name }) => [channel, name] as const),
  );
}

/** The card as it was kept, or as it is made now. What makes them is loaded where a card is wanted. */
async function madeCard({ id, kept }: FloorRow, epoch: string, shop: Shop): Promise<MadeCard> {
  if (kept?.epoch === epoch) return JSON.parse(kept.card) as MadeCard;
  const { makeFloorCard } = await import('./make-floor-card');
  return makeCard(id, epoch, () => makeFloorCard(id, shop));
}

const whyNot = (error: unknown): string =>
  error instanceof Error && error.constructor.name === 'NoCard'
    ? error.message
    : 'Its sheet or one of its runs cannot be read.';

/** All jobs that are still in the house, and those that cannot be read: one of them is a card that says so, the others stand. */
export async function floorView(given?: Shop): Promise<FloorView> {
  const shop = given ?? (await loadShop());
  const [rows, open, { left, clock }] = await Promise.all([floorRows(), openRuns(), recentActs(dayAgo())]);
  const epoch = epochOf(shop);
  const openOf = new Map(open.map((run) => [run.jobId, run]));
  const overdue = overdueNow(shop);
  const broken: BrokenJob[] = [];
  const cardOf = async (row: FloorRow): Promise<FloorCard | null> => {
    try {
      const { titles, channels, ...made } = await madeCard(row, epoch, shop);
      const { head } = row;
      if (!head) throw new Error(`job ${row.id} has a card and no record`);
      const run = openOf.get(row.id);
      const { id, serial, vehicle, complaint, promised_at: promisedAt } = head;
      return {
        ...made,
        job: {
          id,
          serial,
          vehicle,
          complaint,
          promisedAt,
          place: head.place as Place,
          sheet: { name: head.sheet_name ?? '' },
        },
        openRun: run ? { ...shownOpen(run, recordingNow()), title: titles[run.step] ?? run.step } : null,
        overdue: channels.flatMap((channel) => overdue.get(channel) ?? []),
      };
    } catch (error) {
      console.error(`job ${row.head?.number ?? row.id}`, error);
      broken.push({ id: row.id, number: row.head?.number ?? null, serial: row.head?.serial ?? '', why: whyNot(error) });
      return null;
    }
  };
  const cards = await Promise.all(rows.map(cardOf));
  return {
    jobs: cards.filter((card) => card !== null),
    broken,
    left: leftToday(left),
    judging: judgingAnew(),
    unreadable: shop.broken,
    zoneSet: shop.settings.site.timeZone !== undefined,
    clockRanBack: clock.map(({ at, detail }) => ({ at, seconds: Number(detail) })).reverse(),
  };
}
