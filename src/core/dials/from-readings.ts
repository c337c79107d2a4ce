import { random, readingComponents, systematic, type UncertaintyComponent } from '../instruments/uncertainty';
import { absent, beyond, measured } from '../procedure/analysis-result';
import type { Characteristic, StepAnalysis } from '../procedure/step-analysis';
import type { StepContext } from '../procedure/step-context';
import type { ReadBy, Terms, TypedEntry, TypedField, TypedValues } from '../procedure/typed-entry';
import type { CharacteristicId } from '../quantities/characteristics';
import type { ShownAs } from '../quantities/shown-as';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import { plausibleRange } from './plausible-range';
import { momentStandard, watchStandard } from './stopwatch';

/** One reading that is asked for. */
export interface AskedReading {
  readonly id: string;
  readonly title: string;
  readonly hint?: string;
  readonly as: ShownAs;
  /** Whose gauge shows it; left out where a watch, a rule, a vessel or a count does. */
  readonly channel?: string;
  readonly by?: ReadBy;
  /** What a sound unit would show here; of a column, by what else stands in its row. */
  readonly expected?: TypedField['expected'] | ((row: TypedValues) => TypedField['expected']);
  readonly toHold?: true;
  readonly plausible?: readonly [number, number];
  readonly optional?: true;
  readonly choices?: readonly string[];
}

/** Readings of a kind, taken again and again: a table that grows by a row. */
export interface AskedRows {
  /** With fewer whole rows than this there is nothing to tell. */
  readonly least: number;
  readonly columns: readonly AskedReading[];
}

/** What was read, SI: once, and row by row; only rows that are whole, in the order in which they were read. */
export interface TakenReadings {
  readonly once: TypedValues;
  readonly rows: readonly TypedValues[];
}

/** Figures (SI) by the characteristic that they are; one that is left out or NaN cannot be told. */
export type Figures = Readonly<Partial<Record<CharacteristicId, number>>>;

/** What readings come to. */
export interface Reckoned {
  /**
   * The figures of readings like these, by the decisions that were made on these: it is asked again with every error of a dial, so that
   * nothing may be decided in it.
   */
  readonly figures: (taken: TakenReadings) => Figures;
  /** What is unknown of a figure besides its readings. */
  readonly besides?: Readonly<Partial<Record<CharacteristicId, readonly UncertaintyComponent[]>>>;
  /** Figures that are only known to lie beyond what was reckoned. */
  readonly bounds?: Readonly<
    Partial<Record<CharacteristicId, { readonly side: 'above' | 'below'; readonly problem: AnalysisProblem }>>
  >;
  /** Why a figure cannot be told. */
  readonly missing?: Readonly<Partial<Record<CharacteristicId, AnalysisProblem>>>;
  readonly also?: Omit<Partial<StepAnalysis>, 'characteristics'>;
}

export interface ReadingsSetup<Unit> {
  readonly characteristics: (context: StepContext<Unit>) => readonly CharacteristicId[];
  readonly once?: (context: StepContext<Unit>, values: TypedValues) => readonly AskedReading[];
  readonly rows?: (context: StepContext<Unit>, values: TypedValues) => AskedRows;
  readonly reckon: (taken: TakenReadings, context: StepContext<Unit>) => Reckoned | AnalysisProblem;
  /** How figures follow from fields, where that is a sum that can be shown. */
  readonly terms?: (context: StepContext<Unit>) => Terms;
}

/** No table grows beyond this. */
const mostRows = 60;
/** A rule is read to a millimetre, m; a vessel's mark to so much of what is in it. */
const ruleDivision = 1e-3;
const vesselShare = 0.03;
/** From here on a needle is at its stop, as a share of the dial's range. */
const atStop = 0.999;
/** Parts of a dial's range that are bent each by itself. */
const bends = 5;
/** A reading is moved by this share of its dial's range to see which way a figure goes with it. */
const nudge = 0.01;

const fieldOfRow = (column: string, at: number) => `${column}#${at}`;

/** Rows that anything stands in, up to the last. */
function rowsBegun(ids: readonly string[]): number {
  return ids.reduce((most, id) => {
    const at = Number(/#(\d{1,2})$/.exec(id)?.[1] ?? 0);
    return Math.min(mostRows, Math.max(most, at));
  }, 0);
}

/** Entry of a step that asks for nothing but readings: what they come to, and how well that is known, is worked out here. */
export function entryFromReadings<Unit>(setup: ReadingsSetup<Unit>): TypedEntry<Unit> {
  return {
    fields: (context, values, begun) => fieldsOf(setup, context, values, begun),
    analyse: (values, context) => analyse(setup, values, context),
    ...(setup.terms ? { terms: setup.terms } : {}),
  };
}

function fieldsOf<Unit>(
  setup: ReadingsSetup<Unit>,
  context: StepContext<Unit>,
  values: TypedValues,
  begun: readonly string[] = [],
): TypedField[] {
  const field = (asked: AskedReading, row: TypedValues): TypedField => ({
    id: asked.id,
    title: asked.title,
    hint: asked.hint ?? '',
    as: asked.as,
    channel: asked.channel ?? null,
    expected: (typeof asked.expected === 'function' ? asked.expected(row) : asked.expected) ?? null,
    plausible: asked.plausible ?? plausibleRange(asked.as, asked.channel ?? null, context),
    optional: asked.optional === true,
    ...(asked.toHold ? { toHold: true } : {}),
    ...(asked.choices ? { choices: asked.choices } : {}),
    ...(asked.by ? { by: asked.by } : {}),
  });
  const once = (setup.once?.(context, values) ?? []).map((asked) => field(asked, values));
  const rows = setup.rows?.(context, values);
  if (!rows) return once;
  const shown = Math.min(mostRows, Math.max(rows.least, rowsBegun([...Object.keys(values), ...begun]) + 1));
  const table = Array.from({ length: shown }, (_, place) => place + 1).flatMap((at) => {
    const row = rowAt(rows, values, at);
    // Of a row that was begun, all is wanted.
    const begun = Object.keys(row).length > 0;
    return rows.columns.map((column): TypedField => {
      const each = field(column, row);
      return {
        ...each,
        id: fieldOfRow(column.id, at),
        title: `${column.title}, row ${at}`,
        optional: each.optional || (at > rows.least && !begun),
        row: { at, heading: column.title },
      };
    });
  });
  return [...once, ...table];
}

/** What stands in one row, by column. */
function rowAt({ columns }: AskedRows, values: TypedValues, at: number): TypedValues {
  return Object.fromEntries(
    columns.flatMap(({ id }) => {
      const value = values[fieldOfRow(id, at)];
      return value === undefined ? [] : [[id, value]];
    }),
  );
}

function takenOf(rows: AskedRows | undefined, values: TypedValues): TakenReadings {
  if (!rows) return { once: values, rows: [] };
  const wanted = rows.columns.filter((column) => !column.optional).map(({ id }) => id);
  const all = Array.from({ length: rowsBegun(Object.keys(values)) }, (_, place) => rowAt(rows, values, place + 1));
  return { once: values, rows: all.filter((row) => wanted.every((id) => row[id] !== undefined)) };
}

function analyse<Unit>(setup: ReadingsSetup<Unit>, values: TypedValues, context: StepContext<Unit>): StepAnalysis {
  const ids = setup.characteristics(context);
  const rows = setup.rows?.(context, values);
  const reckoned = setup.reckon(takenOf(rows, values), context);
  const none = { events: [], notes: [] };
  if ('code' in reckoned) return { characteristics: ids.map((id) => absent(id, reckoned)), ...none };
  const fields = fieldsOf(setup, context, values).filter(({ id }) => values[id] !== undefined);
  const of = (moved: TypedValues) => reckoned.figures(takenOf(rows, moved));
  const nominal = of(values);
  const doubts = doubtsOf({ fields, values, of, nominal }, context);
  const characteristics = ids.map((id): Characteristic => {
    const value = nominal[id];
    if (value === undefined || Number.isNaN(value)) return absent(id, reckoned.missing?.[id] ?? { code: 'not-read' });
    const estimate = { value, components: [...(doubts.components.get(id) ?? []), ...(reckoned.besides?.[id] ?? [])] };
    const stop = doubts.stops.get(id);
    if (stop === 'either') return absent(id, { code: 'not-read' });
    const bound = reckoned.bounds?.[id] ?? stop;
    return bound ? beyond(id, bound.side, estimate, bound.problem) : measured(id, value, estimate.components);
  });
  return { characteristics, ...none, ...reckoned.also };
}

interface Propagated {
  readonly fields: readonly TypedField[];
  readonly values: TypedValues;
  readonly of: (moved: TypedValues) => Figures;
  readonly nominal: Figures;
}

type Stop = { readonly side: 'above' | 'below'; readonly problem: AnalysisProblem } | 'either';

/** One error: what it is of, whether another time of reading would bring another, and what it moves each field by. */
interface ErrorMove {
  readonly source: UncertaintyComponent['source'];
  readonly random: boolean;
  readonly by: (field: TypedField) => number;
}

/**
 * What the errors of dials, watch, rule and vessel make of the figures: each is moved by its standard uncertainty either way and the
 * figures worked out again (JCGM 100:2008, 5.1.3 note 2). A dial's zero, gain and bends move all that was read on it, its division each
 * reading by itself. A needle at its stop leaves a figure beyond what it comes to, on the side to which it goes with the needle.
 */
function doubtsOf(propagated: Propagated, context: StepContext<unknown>) {
  const { fields, values, of, nominal } = propagated;
  const ids = Object.keys(nominal) as CharacteristicId[];
  const squares = new Map<CharacteristicId, Map<string, { part: UncertaintyComponent; square: number }>>();
  const moved = (by: (field: TypedField) => number, times: number): Figures =>
    of({ ...values, ...Object.fromEntries(fields.map((field) => [field.id, values[field.id] + times * by(field)])) });
  for (const { source, random: isRandom, by } of movesOf(fields, values, context)) {
    const [up, down] = [moved(by, 1), moved(by, -1)];
    for (const id of ids) {
      const from = nominal[id] ?? Number.NaN;
      const change = Math.max(...[up[id], down[id]].map((each) => Math.abs((each ?? from) - from) || 0));
      if (change === 0) continue;
      const own = squares.get(id) ?? new Map<string, { part: UncertaintyComponent; square: number }>();
      const key = `${source} ${isRandom}`;
      const part = isRandom ? random(source, 0) : systematic(source, 0);
      own.set(key, { part, square: (own.get(key)?.square ?? 0) + change ** 2 });
      squares.set(id, own);
    }
  }
  return {
    components: new Map(
      [...squares].map(([id, own]) => [
        id,
        [...own.values()].map(({ part, square }) => ({ ...part, standard: Math.sqrt(square) })),
      ]),
    ),
    stops: stopsOf(propagated, context),
  };
}

/**
 * How much of a dial's bend number `bend` a reading has: a scale is bent smoothly, so that readings close to each other are off alike and
 * those more than a fifth of its range apart are not.
 */
function bentBy(bend: number, value: number, range: number): number {
  const place = range > 0 ? Math.min(1, Math.abs(value) / range) * bends : 0;
  const own = Math.max(0, 1 - Math.abs(place - bend));
  const within = place - Math.floor(place);
  return own / Math.hypot(within, 1 - within);
}

const isTime = ({ as }: TypedField) => as === 'time' || as === 'long-time';

function movesOf(fields: readonly TypedField[], values: TypedValues, context: StepContext<unknown>): ErrorMove[] {
  const instrumentOf = ({ channel }: TypedField) => (channel === null ? undefined : context.instruments.get(channel));
  const partOf = (field: TypedField, source: UncertaintyComponent['source']) => {
    const instrument = instrumentOf(field);
    const parts = instrument ? readingComponents(instrument, values[field.id], context.date) : [];
    return parts.find((part) => part.source === source)?.standard ?? 0;
  };
  const read = fields.filter(({ choices }) => !choices);
  const channels = new Set(read.flatMap(({ channel }) => channel ?? []));
  const together = [...channels].flatMap((channel): ErrorMove[] => {
    const move = (source: UncertaintyComponent['source'], weight: (value: number) => number): ErrorMove => ({
      source,
      random: false,
      by: (field) =>
        field.channel === channel && !field.choices ? partOf(field, source) * weight(values[field.id]) : 0,
    });
    const range = context.instruments.get(channel)?.range ?? 0;
    return [
      move('gauge-zero', () => 1),
      move('gauge-gain', Math.sign),
      ...Array.from({ length: bends + 1 }, (_, bend) => move('gauge-linearity', (value) => bentBy(bend, value, range))),
    ];
  });
  const one = (
    field: TypedField,
    source: UncertaintyComponent['source'],
    standard: number,
    isRandom = false,
  ): ErrorMove[] =>
    standard > 0 ? [{ source, random: isRandom, by: (each) => (each.id === field.id ? standard : 0) }] : [];
  const alone = read.flatMap((field) => {
    if (isTime(field)) return one(field, 'timing', field.row ? momentStandard : watchStandard, true);
    if (field.by === 'vessel') return one(field, 'volume', vesselShare * Math.abs(values[field.id]));
    if (field.by === 'rule' && !instrumentOf(field)) return one(field, 'resolution', ruleDivision / Math.sqrt(12));
    return one(field, 'resolution', partOf(field, 'resolution'));
  });
  // One start of a watch that runs on through all rows.
  const start: ErrorMove = {
    source: 'timing',
    random: true,
    by: (field) => (isTime(field) && field.row ? momentStandard : 0),
  };
  return [...together, start, ...alone];
}

/** Figures that hang on a needle at its stop, with the side to which they lie beyond; `either` where two stops pull both ways. */
function stopsOf(
  { fields, values, of, nominal }: Propagated,
  context: StepContext<unknown>,
): Map<CharacteristicId, Stop> {
  const stops = new Map<CharacteristicId, Stop>();
  for (const field of fields) {
    const instrument = field.channel === null || field.choices ? undefined : context.instruments.get(field.channel);
    if (!instrument || values[field.id] < atStop * instrument.range) continue;
    const further = of({ ...values, [field.id]: values[field.id] + nudge * instrument.range });
    for (const id of Object.keys(nominal) as CharacteristicId[]) {
      const change = (further[id] ?? Number.NaN) - (nominal[id] ?? Number.NaN);
      if (Number.isNaN(change) || change === 0) continue;
      const side = change > 0 ? 'above' : 'below';
      const before = stops.get(id);
      const problem = { code: 'gauge-clipped', channel: instrument.channel, at: values[field.id] } as const;
      stops.set(
        id,
        before === undefined ? { side, problem } : before !== 'either' && before.side === side ? before : 'either',
      );
    }
  }
  return stops;
}

/** Entry of a step whose figures follow from readings that are each taken once; what was not read is NaN in what is worked out of it. */
export function entryFromOnce<Unit>(
  characteristics: readonly CharacteristicId[],
  once: (context: StepContext<Unit>) => readonly AskedReading[],
  figures: (read: TypedValues, context: StepContext<Unit>) => Figures,
  terms: Terms = {},
): TypedEntry<Unit> {
  return entryFromReadings({
    characteristics: () => characteristics,
    once,
    terms: () => terms,
    reckon: (_taken, context) => ({ figures: (moved) => figures(moved.once, context) }),
  });
}
