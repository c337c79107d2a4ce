import { createHash } from 'node:crypto';
import { rankingVersion } from '@/core/diagnosis/ranking-version';
import { methodVersion } from '@/core/judging/method-version';
import { calibrationState } from '@/core/instruments/instrument';
import { instrumentFromSite } from '@/core/formats/site-instrument';
import { floorRows, openRuns, recentActs, type FloorRow, type LeftRow } from '@/data/floor-cards';
import type { Place } from '@/data/jobs';
import { dayAgo } from '../context/day-ago';
import { recordingNow } from '../recording/recording-now';
import { loadShop, type Shop } from '../shop/shop-now';
import { cardAtOnce } from './card-at-once';
import { judgingAnew, type JudgingAnew } from './judging-queue';
import type { MadeCard } from './make-floor-card';
import { shownOpen, type OpenRun } from './open-run';
import { undoableOf, type Undoable } from './undoable';

/** What the book says of a job on the floor. */
export interface FloorJob {
  readonly id: string;
  readonly serial: string;
  readonly vehicle: string;
  readonly promisedAt: string | null;
  readonly place: Place;
  readonly sheet: { readonly name: string };
}

/** What the floor shows of a job, and no more: it is there at once for every unit in the house. */
export interface FloorCard extends Omit<MadeCard, 'titles' | 'channels'> {
  readonly job: FloorJob;
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
  /** Jobs whose records are being judged: what they come to stands on a floor to come. */
  readonly beingJudged: readonly FloorJob[];
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

/** So long a floor waits for cards that have to be made, ms. */
const patience = 500;

const whyNot = (error: unknown): string =>
  error instanceof Error && error.constructor.name === 'NoCard'
    ? error.message
    : 'Its sheet or one of its runs cannot be read.';

/** How a job stands on the floor. */
type Shown =
  | { readonly kind: 'card'; readonly job: FloorCard }
  | { readonly kind: 'being-judged'; readonly job: FloorJob }
  | { readonly kind: 'broken'; readonly job: BrokenJob };

function floorJob({ head, id }: FloorRow): FloorJob {
  if (!head) throw new Error(`job ${id} has a card and no record`);
  const { serial, vehicle, promised_at: promisedAt } = head;
  const place = head.place as Place;
  return { id, serial, vehicle, promisedAt, place, sheet: { name: head.sheet_name ?? '' } };
}

/**
 * All jobs that are still in the house, and those that cannot be read: one of them is a card that says so, the others stand. `waits` is how
 * long it waits for what has to be made, ms.
 */
export async function floorView(given?: Shop, waits = patience): Promise<FloorView> {
  const shop = given ?? (await loadShop());
  const [rows, open, { left, clock }] = await Promise.all([floorRows(), openRuns(), recentActs(dayAgo())]);
  const asked = { epoch: epochOf(shop), shop, readAt: performance.now(), patience: waits };
  const openOf = new Map(open.map((run) => [run.jobId, run]));
  const overdue = overdueNow(shop);
  const shownOf = async (row: FloorRow): Promise<Shown> => {
    try {
      const at = await cardAtOnce(row, asked);
      const job = floorJob(row);
      if (at.kind === 'being-judged') return { kind: 'being-judged', job };
      const { titles, channels, ...made } = at.card;
      const run = openOf.get(row.id);
      const openRun = run ? { ...shownOpen(run, recordingNow()), title: titles[run.step] ?? run.step } : null;
      return {
        kind: 'card',
        job: { ...made, job, openRun, overdue: channels.flatMap((channel) => overdue.get(channel) ?? []) },
      };
    } catch (error) {
      const { number = null, serial = '' } = row.head ?? {};
      console.error(`job ${number ?? row.id}`, error);
      return { kind: 'broken', job: { id: row.id, number, serial, why: whyNot(error) } };
    }
  };
  const shown = await Promise.all(rows.map(shownOf));
  return {
    jobs: shown.flatMap((each) => (each.kind === 'card' ? [each.job] : [])),
    beingJudged: shown.flatMap((each) => (each.kind === 'being-judged' ? [each.job] : [])),
    broken: shown.flatMap((each) => (each.kind === 'broken' ? [each.job] : [])),
    left: leftToday(left),
    judging: judgingAnew(),
    unreadable: shop.broken,
    zoneSet: shop.settings.site.timeZone !== undefined,
    clockRanBack: clock.map(({ at, detail }) => ({ at, seconds: Number(detail) })).reverse(),
  };
}
