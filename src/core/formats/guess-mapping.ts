import { channels, findChannel, type ChannelDescription } from '../quantities/channels';
import { findUnit, unitOf, type Dimension, type MeasurementUnit } from '../quantities/measurement-unit';
import { partReference } from '../quantities/read-figure';
import type { MappedColumn } from './column-mapping';
import { inferReference } from './infer-reference';
import type { RawLog } from './raw-log';

/** What was inferred about a column and should be said. */
export type Inference =
  | 'channel-from-words'
  | 'unit-assumed'
  /** The step judges by it, and the header names no unit: somebody has to say which it is. */
  | 'unit-open'
  /** The figures fit the unit of the header badly, and another one well. */
  | 'unit-misfits'
  /** The header says a unit that nobody knows: somebody has to say which it is. */
  | 'unit-unknown'
  /** No instrument of this channel shows as much: the unit is another. */
  | 'scale-questioned'
  | 'clock'
  | 'days-by-figures'
  | 'milliseconds-by-rate'
  /** Whole numbers that may be seconds, or thousandths or millionths of them. */
  | 'time-unit-open'
  | 'sign-turned'
  | 'read-as-absolute'
  /** It makes sense as it is called and as an absolute pressure. */
  | 'reference-open'
  | 'not-understood';

export interface GuessedColumn {
  readonly mapped: MappedColumn;
  readonly inferred: readonly Inference[];
}

const timeWords = ['time', 't', 'timestamp', 'seconds', 'elapsed'];

/** Units taken where a header names none, by dimension. */
const assumedUnits: Partial<Record<Dimension, string>> = {
  pressure: 'kPa',
  force: 'N',
  length: 'mm',
  temperature: '°C',
  ratio: '1',
};

interface HeaderParts {
  readonly tokens: readonly string[];
  readonly unit: MeasurementUnit | undefined;
  /** A unit that stands in the header and is none that is known; null otherwise. */
  readonly unknown: string | null;
  readonly absolute: boolean;
}

const bracketed = /[[(]([^\])]*)[\])]/;

/** Words of a name, parted at its signs and capitals. */
function wordsOf(name: string): string[] {
  return name
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z0-9/"°%]+/)
    .filter(Boolean);
}

/** A header's words, its unit and whether it says "absolute". */
function partsOf(header: string): HeaderParts {
  const [, inside] = bracketed.exec(header) ?? [];
  const outside = header.replace(bracketed, ' ');
  const spelled = (inside ?? '').replace(/\b(?:abs|absolute|vac|vacuum|gauge|rel)\b\.?/gi, '').trim();
  const tokens = wordsOf(outside);
  // A unit at the end of a name, as it is written there: its capitals part no words.
  const last =
    outside
      .trim()
      .split(/[\s_]+/)
      .at(-1) ?? '';
  const fromName = spelled === '' && last.length > 1 ? findUnit(last) : undefined;
  const ofUnit = fromName ? wordsOf(last).length : 0;
  return {
    tokens: ofUnit > 0 ? tokens.slice(0, -ofUnit) : tokens,
    unit: spelled === '' ? fromName : findUnit(partReference(spelled).unit),
    unknown: spelled !== '' && !findUnit(partReference(spelled).unit) ? spelled : null,
    absolute:
      /\babs(?:olute)?\b/i.test(header.replace(/_/g, ' ')) || partReference(inside ?? '').reference === 'absolute',
  };
}

function score(tokens: readonly string[], channel: string): number {
  const own = findChannel(channel)?.words ?? channel.split('_');
  return tokens.filter((token) => own.includes(token)).length;
}

/** Whether a header is a channel's own name, as in a bench log. */
export const isCalled = (header: string, channel: string): boolean => exactChannel(header)?.id === channel;

/** Header that is the channel's own name, as in a bench log. */
function exactChannel(header: string): ChannelDescription | undefined {
  return findChannel(header.replace(bracketed, '').trim());
}

/** Identifies a log format: the same headers in the same order are understood the same way. */
export function headerFingerprint(headers: readonly string[]): string {
  return headers.map((header) => header.trim().toLowerCase()).join('|');
}

/**
 * Guesses what the columns of a log are: channel and unit from the header's words, sign and reference of a vacuum from
 * its figures. `wanted` are the channels the step would like, tried first; `ambient` is the local atmosphere (Pa).
 */
export function guessMapping(
  raw: RawLog,
  wanted: readonly string[],
  ambient: number,
  /** The step is watched for hours: whole seconds between its samples are no milliseconds. */
  inHours = false,
): GuessedColumn[] {
  const parts = raw.headers.map(partsOf);
  const guesses: GuessedColumn[] = raw.headers.map(() => ({
    mapped: { use: 'own' },
    inferred: ['not-understood'],
  }));
  const timeAt = timeColumn(raw, parts);
  if (timeAt >= 0)
    guesses[timeAt] = {
      ...timeGuess(raw, timeAt, { parts: parts[timeAt], inHours }),
    };
  const taken = new Set<string>();
  const candidates = raw.headers.flatMap((header, at) => {
    if (at === timeAt) return [];
    const exact = exactChannel(header);
    return channels.flatMap((channel) => {
      const { unit, tokens } = parts[at];
      if (unit && unit.dimension !== unitOf(channel.fileUnit).dimension) return [];
      const points = exact?.id === channel.id ? 100 : score(tokens, channel.id);
      return points > 0 ? [{ at, channel, points: points + (wanted.includes(channel.id) ? 0.5 : 0) }] : [];
    });
  });
  for (const { at, channel, points } of candidates.sort((p, q) => q.points - p.points)) {
    if (taken.has(channel.id) || guesses[at].mapped.use === 'channel') continue;
    taken.add(channel.id);
    guesses[at] = channelGuess(raw, at, {
      channel,
      parts: parts[at],
      exact: points >= 100,
      wanted: wanted.includes(channel.id),
      ambient,
    });
  }
  return guesses;
}

/** Day numbers that a spreadsheet would write for these decades, and the longest step of a log among them, d. */
const serialDays = [20_000, 80_000] as const;
const serialStep = 0.02;
/** Whole numbers that rise by so many or more, over so long or longer, are milliseconds where nobody says what they are. */
const leastMilliseconds = 2;
const longestInSeconds = 3_000;
/** From this step on they may be millionths as well. */
const leastMicroseconds = 500;
/** Whole seconds of a log so long may be thousandths of one. */
const leastWhole = 60;

/** Unit of a time column: what its header says, a clock's seconds, or what its figures can only be. */
function timeGuess(
  raw: RawLog,
  at: number,
  { parts, inHours }: { readonly parts: HeaderParts; readonly inHours: boolean },
): GuessedColumn {
  const guess = (unit: string, inferred: readonly Inference[]): GuessedColumn => ({
    mapped: { use: 'time', unit },
    inferred,
  });
  if (raw.clocks.has(at)) return guess('s', ['clock']);
  if (parts.unit?.dimension === 'time') return guess(parts.unit.symbol, []);
  const column = raw.columns[at].filter((value) => !Number.isNaN(value));
  const steps = column
    .subarray(1)
    .map((value, i) => value - column[i])
    .sort();
  const step = steps[steps.length >> 1] ?? 0;
  const [first, span] = [column[0] ?? 0, (column.at(-1) ?? 0) - (column[0] ?? 0)];
  if (first > serialDays[0] && first < serialDays[1] && step > 0 && step < serialStep)
    return guess('d', ['days-by-figures']);
  const whole = column.every((value) => Number.isInteger(value));
  if (!inHours && whole && step >= leastMilliseconds && span >= longestInSeconds)
    return guess(
      'ms',
      step >= leastMicroseconds ? ['milliseconds-by-rate', 'time-unit-open'] : ['milliseconds-by-rate'],
    );
  return guess('s', !inHours && whole && span >= leastWhole ? ['unit-assumed', 'time-unit-open'] : ['unit-assumed']);
}

/** The column named time, else the first that only rises. */
function timeColumn(raw: RawLog, parts: readonly HeaderParts[]): number {
  const named = parts.findIndex(({ tokens }) => tokens.length > 0 && timeWords.includes(tokens[0]));
  if (named >= 0) return named;
  return raw.columns.findIndex((column) => {
    for (let i = 1; i < Math.min(column.length, 2000); i++) if (!(column[i] > column[i - 1])) return false;
    return column.length > 2;
  });
}

/** Between these a pressure of a brake has its highest, Pa; outside of them its unit may be another's. */
const usualPeak = { vacuum: [1_200, 115e3], gauge: [250e3, 30e6], absolute: [40e3, 30e6] } as const;

/** Whether the highest of a column of pressures is nowhere near what a brake has, though something is there. */
function misfits({ dimension, reference }: ChannelDescription, column: Float64Array): boolean {
  if (dimension !== 'pressure' || !reference) return false;
  const [least, most] = usualPeak[reference];
  const highest = column.reduce((high, value) => (Math.abs(value) > high ? Math.abs(value) : high), 0);
  return highest > 0 && (highest < least || highest > most);
}

/** More than any brake has, SI, by dimension. */
const beyondBelief: Partial<Record<Dimension, number>> = {
  pressure: 60e6,
  force: 50e3,
  length: 2,
  current: 2_000,
  voltage: 1_000,
  angle: 400,
};

/** Whether a column's usual readings are more than its channel can be: a vacuum above any atmosphere, a pressure above any brake's. */
export function isImplausible(
  channel: Pick<ChannelDescription, 'dimension' | 'reference'>,
  column: Float64Array,
): boolean {
  const most = channel.reference === 'vacuum' ? 115e3 : beyondBelief[channel.dimension];
  if (most === undefined) return false;
  const sizes = column
    .filter((value) => !Number.isNaN(value))
    .map(Math.abs)
    .sort();
  return sizes.length > 0 && sizes[Math.floor(0.9 * (sizes.length - 1))] > most;
}

/** The unit that a header says, where it measures what a channel does; undefined where it says none that fits. */
export function unitOfHeader(header: string, dimension: Dimension): MeasurementUnit | undefined {
  const { unit } = partsOf(header);
  return unit?.dimension === dimension ? unit : undefined;
}

function channelGuess(
  raw: RawLog,
  at: number,
  how: {
    readonly channel: ChannelDescription;
    readonly parts: HeaderParts;
    readonly exact: boolean;
    readonly wanted: boolean;
    readonly ambient: number;
  },
): GuessedColumn {
  const { channel, parts, exact, wanted, ambient } = how;
  const inferred: Inference[] = exact ? [] : ['channel-from-words'];
  const unit = parts.unit ?? unitOf(assumedUnits[channel.dimension] ?? channel.fileUnit);
  if (!parts.unit && channel.dimension !== 'ratio')
    inferred.push(parts.unknown !== null ? 'unit-unknown' : wanted ? 'unit-open' : 'unit-assumed');
  const column = raw.columns[at].map((value) => value * unit.factor + unit.offset);
  if (isImplausible(channel, column)) inferred.push('scale-questioned');
  else if (wanted && !exact && parts.unit && misfits(channel, column)) inferred.push('unit-misfits');
  const found = parts.absolute ? ({ kind: 'absolute' } as const) : inferReference(channel, column, ambient, exact);
  const said = {
    'as-written': null,
    negative: 'sign-turned',
    absolute: 'read-as-absolute',
    ambiguous: 'reference-open',
  } as const;
  const inference = said[found.kind];
  if (inference) inferred.push(inference);
  const sign = found.kind === 'negative' ? -1 : 1;
  const absolute = found.kind === 'absolute' && channel.reference !== undefined;
  return { mapped: { use: 'channel', channel: channel.id, unit: unit.symbol, sign, absolute }, inferred };
}
