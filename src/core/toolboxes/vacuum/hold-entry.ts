import {
  differenceComponents,
  differenceResolution,
  expandedUncertainty,
  random,
  scaleComponents,
  stabilityComponent,
  systematic,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { airThroughGap, airThroughHole, leftBy, proportional } from '../../physics/leak-laws';
import { quantity, type Temperature } from '../../quantities/quantity';
import { seaLevelPressure } from '../../quantities/standard-atmosphere';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import type { TypedEntry, TypedField, TypedValues } from '../../procedure/typed-entry';
import { absent, beyond, measured, nothingMeasured } from '../../procedure/analysis-result';
import { plausibleRange } from '../../dials/plausible-range';
import { watchStandard } from '../../dials/stopwatch';
import { farFromLimit } from './far-from-limit';

/** A vacuum hold as it is read off a dial. */
export interface HoldEntrySetup<Unit> {
  /** Time over which the loss is stated, s. */
  readonly seconds: (context: StepContext<Unit>) => number;
  /** Most that may be lost over that time, Pa. */
  readonly limit: (context: StepContext<Unit>) => number;
  /** Vacuum that the source is set to, Pa. */
  readonly supplyVacuum: (context: StepContext<Unit>) => number;
  /** Volume of the unit that is evacuated, m3, or null. */
  readonly volume: (context: StepContext<Unit>) => number | null;
}

const standardTemperature = quantity<Temperature>(293.15);
/** A supply may start this far from what the source was set to, as a share. */
const startShare = 0.12;
/** A volume measured with rule and calliper is good to about this. */
const volumeShare = 0.05;
/** Less vacuum than this is none, Pa. */
const noVacuum = 2_000;
/** A gauge at its zero may hide this much, Pa. */
const noneLeft = 500;
/** A hold that starts below this share of what the source gives proves little. */
const leastShare = 0.8;
/** Air may still warm by about this while a needle is watched, K. */
const warming = 0.5;
/** A reading between the ends may lie this far off what any leak would leave before it is said, Pa. */
const uneven = 500;

/**
 * Entry of a vacuum hold or soak from readings at its ends, and one between where it was read: start, time, end. The loss is
 * stated at the step's own time, by what every law that a leak follows would have left then: a hold of a minute serves as well, and
 * more minutes never turn a fast leak into a slow one.
 */
export function holdEntry<Unit>(setup: HoldEntrySetup<Unit>): TypedEntry<Unit> {
  return {
    fields: (context, values) => {
      const stated = setup.seconds(context);
      const set = setup.supplyVacuum(context);
      const { start, seconds } = values;
      const vacuum = { as: 'vacuum', channel: 'supply_vacuum', optional: false } as const;
      const sound = (after: number | undefined): TypedField['expected'] =>
        start === undefined || after === undefined || start < noVacuum
          ? null
          : { low: leftOfAllowed(start, after, setup, context), high: start };
      const range = plausibleRange('vacuum', 'supply_vacuum', context);
      const time = { as: 'time', channel: null, expected: null, plausible: [2, 172_800] } as const;
      return [
        {
          ...vacuum,
          id: 'start',
          title: 'Vacuum at the start',
          hint: 'Once the source is shut and the needle stands',
          expected: { low: set * (1 - startShare), high: set * (1 + startShare) },
          plausible: range,
        },
        {
          ...time,
          id: 'seconds',
          title: 'Held for',
          hint: `The limit is stated at ${stated} s; longer while little is lost`,
          optional: false,
        },
        {
          ...vacuum,
          id: 'end',
          title: 'Vacuum at the end',
          hint: '',
          expected: sound(seconds),
          plausible: range,
        },
        {
          ...time,
          id: 'middle-seconds',
          title: 'Read between, after',
          hint: 'A soak overnight: any time',
          optional: true,
        },
        {
          ...vacuum,
          id: 'middle',
          title: 'Vacuum then',
          hint: '',
          expected: sound(values['middle-seconds']),
          plausible: range,
          optional: true,
        },
      ];
    },
    analyse: (values, context) => analyse(values, context, setup),
  };
}

/** What the largest leak that is allowed leaves of `start` (Pa vacuum) after so long, by the law that leaves least, Pa. */
function leftOfAllowed<Unit>(
  start: number,
  after: number,
  setup: HoldEntrySetup<Unit>,
  context: StepContext<Unit>,
): number {
  const allowed = { seconds: setup.seconds(context), vacuum: start - setup.limit(context) };
  return Math.min(...leftAt({ seconds: 0, vacuum: start }, allowed, context.ambient.pressure)(after));
}

function analyse<Unit>(values: TypedValues, context: StepContext<Unit>, setup: HoldEntrySetup<Unit>): StepAnalysis {
  const ids = ['vacuum-loss', 'leak-flow'] as const;
  const { start, seconds, end } = values;
  if (start === undefined || seconds === undefined || end === undefined || !(seconds > 0))
    return nothingMeasured(ids, { code: 'not-read' });
  if (start < noVacuum) return nothingMeasured(ids, { code: 'source-never-opened', vacuum: Math.max(0, start) });
  const stated = setup.seconds(context);
  const { low, high, bracket } = lossAt(stated, values, context.ambient.pressure);
  const loss = (low + high) / 2;
  const fall = start - bracket.vacuum;
  // A reading counts by as much as of what was lost until it was lost by the stated time.
  const share = fall > 0 ? loss / fall : stated / bracket.seconds;
  const instrument = context.instruments.get('supply_vacuum');
  const gauge = instrument
    ? [
        differenceResolution(instrument),
        ...differenceComponents(instrument, bracket.vacuum, start, context.date),
        stabilityComponent(instrument, start, bracket.seconds, context.date),
      ]
    : [];
  const components = [
    random('timing', (Math.abs(loss) * watchStandard) / bracket.seconds),
    // Two readings do not tell a leak from air that warms.
    systematic(
      'gas-heat',
      (((context.ambient.pressure - start) * warming) / context.airTemperature / Math.sqrt(3)) * share,
    ),
    // Nor by which law it went, or would have gone on.
    systematic('model', (high - low) / 2 / Math.sqrt(3)),
    random('fit', (Math.abs(loss) * Math.max(0, 1 - bracket.seconds / stated)) / Math.sqrt(3)),
    ...scaleComponents(gauge, share),
  ];
  const needed = leastShare * setup.supplyVacuum(context);
  const rate = 1 / stated;
  const flow = { volume: setup.volume(context), context };
  const common = {
    events: [],
    notes: readBetween(values),
    doubts: [
      ...unevenLoss(values, expandedUncertainty({ value: 0, components: gauge }), context.ambient.pressure),
      ...farFromLimit(start, { seconds: bracket.nearest, end: bracket.vacuum }, stated),
      ...(start < needed ? [{ code: 'too-little-vacuum', vacuum: start, needed } as const] : []),
    ],
    vacuum: start,
  };
  if (loss < -expandedUncertainty({ value: loss, components }))
    return { ...nothingMeasured(ids, { code: 'gains', channel: 'supply_vacuum', gain: -loss }), ...common };
  // What was all gone by the end was gone some time before: it lost at least that much.
  if (end < noVacuum) {
    const problem = { code: 'all-gone', seconds } as const;
    const least = bracket.vacuum < noVacuum ? low : loss;
    const known = bracket.vacuum < noVacuum ? components.filter(({ source }) => source !== 'model') : components;
    const gone = leakFlow(least * rate, scaleComponents(known, rate), flow);
    return {
      characteristics: [
        beyond('vacuum-loss', 'above', { value: least, components: known }, problem),
        gone.kind === 'measured' ? beyond('leak-flow', 'above', gone.estimate, problem) : gone,
      ],
      ...common,
    };
  }
  return {
    characteristics: [
      measured('vacuum-loss', loss, components),
      leakFlow(loss * rate, scaleComponents(components, rate), flow),
    ],
    ...common,
  };
}

/** Standard volume flow of a loss of `rate` (Pa/s, with its components) in the evacuated volume. */
function leakFlow(
  rate: number,
  components: readonly UncertaintyComponent[],
  { volume, context }: { readonly volume: number | null; readonly context: StepContext<unknown> },
): Characteristic {
  if (volume === null || context.benchVolume === null) return absent('leak-flow', { code: 'no-volume' });
  const perPascal =
    ((volume + context.benchVolume) / seaLevelPressure) * (standardTemperature / context.airTemperature);
  return measured('leak-flow', rate * perPascal, [
    ...scaleComponents(components, perPascal),
    systematic('volume', rate * perPascal * volumeShare),
  ]);
}

interface Bracket {
  /** The reading at which the stated time is reached, or the last there is: s and Pa. */
  readonly seconds: number;
  readonly vacuum: number;
  /** When it was read nearest to the stated time, s. */
  readonly nearest: number;
}

/**
 * What a leak had let go by `stated` s, Pa: the least and the most of what every law that fits the readings on both sides of that time
 * would have.
 */
function lossAt(
  stated: number,
  values: TypedValues,
  outside: number,
): { readonly low: number; readonly high: number; readonly bracket: Bracket } {
  const readings = readingsOf(values);
  const [first] = readings;
  const later = readings.slice(1);
  const after = later.find(({ seconds }) => seconds >= stated) ?? later[later.length - 1];
  const before = readings[readings.indexOf(after) - 1];
  // What was read at that very time needs no law.
  const left = after.seconds === stated ? [after.vacuum] : leftAt(before, after, outside)(stated);
  const losses = left.map((each) => first.vacuum - each);
  const nearest = later.reduce((one, other) =>
    Math.abs(Math.log(other.seconds / stated)) < Math.abs(Math.log(one.seconds / stated)) ? other : one,
  );
  return {
    low: Math.min(...losses),
    high: Math.max(...losses),
    bracket: { ...after, nearest: nearest.seconds },
  };
}

interface Reading {
  readonly seconds: number;
  readonly vacuum: number;
}

/** Readings of a hold in the order of time; one between that is not between is none. */
function readingsOf({ start = 0, seconds = 0, end = 0, middle, 'middle-seconds': after }: TypedValues): Reading[] {
  const between = middle !== undefined && after !== undefined && after > 0 && after < seconds;
  return [
    { seconds: 0, vacuum: start },
    ...(between ? [{ seconds: after, vacuum: middle }] : []),
    { seconds, vacuum: end },
  ];
}

/** What every law leaves at a time, of a leak that took one reading to another, Pa. What is gone is gone: less than none is none. */
function leftAt(one: Reading, other: Reading, outside: number): (time: number) => number[] {
  const ends = { from: one.vacuum, to: Math.max(other.vacuum, noneLeft), span: other.seconds - one.seconds };
  const laws = [proportional, airThroughGap(outside), airThroughHole(outside)];
  return (time) => laws.map((law) => leftBy(law, ends, time - one.seconds));
}

/** A reading between the ends that lies off what any law would have left by more than the gauge's doubt: it was no even leak. */
function unevenLoss(values: TypedValues, expanded: number, outside: number): AnalysisProblem[] {
  const readings = readingsOf(values);
  if (readings.length < 3) return [];
  const [one, middle, other] = readings;
  const left = leftAt(one, other, outside)(middle.seconds);
  const off = middle.vacuum - Math.min(Math.max(middle.vacuum, Math.min(...left)), Math.max(...left));
  return Math.abs(off) > Math.max(uneven, expanded) ? [{ code: 'uneven-loss', off }] : [];
}

/** A reading that is said to be between the ends and is not is left out, and that is said. */
function readBetween({ seconds, 'middle-seconds': after }: TypedValues): AnalysisProblem[] {
  return after !== undefined && seconds !== undefined && after >= seconds
    ? [{ code: 'not-between', after, seconds }]
    : [];
}
