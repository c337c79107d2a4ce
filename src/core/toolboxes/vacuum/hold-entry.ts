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
import { quantity, type Temperature } from '../../quantities/quantity';
import { seaLevelPressure } from '../../quantities/standard-atmosphere';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import type { TypedEntry, TypedField, TypedValues } from '../../procedure/typed-entry';
import { absent, beyond, measured, nothingMeasured } from '../../procedure/analysis-result';
import { plausibleRange } from '../../dials/plausible-range';
import { watchStandard } from '../../dials/stopwatch';

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
/** A hold that starts below this share of what the source gives proves little. */
const leastShare = 0.8;
/** Air may still warm by about this while a needle is watched, K. */
const warming = 0.5;
/** The rate between the first and the middle reading may differ this much from that after it before it is said, Pa. */
const uneven = 500;

/**
 * Entry of a vacuum hold or soak from readings at its ends, and one between where it was read: start, time, end. The loss is
 * stated for the step's own time in proportion, so that a hold of a minute or a soak overnight serves as well.
 */
export function holdEntry<Unit>(setup: HoldEntrySetup<Unit>): TypedEntry<Unit> {
  return {
    fields: (context, values) => {
      const stated = setup.seconds(context);
      const set = setup.supplyVacuum(context);
      const { start, seconds } = values;
      const vacuum = { as: 'vacuum', channel: 'supply_vacuum', optional: false } as const;
      const lost = (after: number) => (setup.limit(context) * after) / stated;
      const sound = (after: number | undefined): TypedField['expected'] =>
        start === undefined || after === undefined ? null : { low: start - lost(after), high: start };
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
          hint: `Stated for ${stated} s; longer is better`,
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

function analyse<Unit>(values: TypedValues, context: StepContext<Unit>, setup: HoldEntrySetup<Unit>): StepAnalysis {
  const ids = ['vacuum-loss', 'leak-flow'] as const;
  const { start, seconds, end } = values;
  if (start === undefined || seconds === undefined || end === undefined || !(seconds > 0))
    return nothingMeasured(ids, { code: 'not-read' });
  if (start < noVacuum) return nothingMeasured(ids, { code: 'source-never-opened', vacuum: Math.max(0, start) });
  const stated = setup.seconds(context);
  const factor = stated / seconds;
  const loss = (start - end) * factor;
  const instrument = context.instruments.get('supply_vacuum');
  const gauge = instrument
    ? [
        differenceResolution(instrument),
        ...differenceComponents(instrument, end, start, context.date),
        stabilityComponent(instrument, start, seconds, context.date),
      ]
    : [];
  const components = [
    random('timing', (Math.abs(loss) * watchStandard) / seconds),
    // Two readings do not tell a leak from air that warms, nor how it would have gone on.
    systematic(
      'gas-heat',
      (((context.ambient.pressure - start) * warming) / context.airTemperature / Math.sqrt(3)) * factor,
    ),
    random('fit', (Math.abs(loss) * Math.max(0, 1 - seconds / stated)) / Math.sqrt(3)),
    ...scaleComponents(gauge, factor),
  ];
  const needed = leastShare * setup.supplyVacuum(context);
  const rate = 1 / stated;
  const flow = { volume: setup.volume(context), context };
  const common = {
    events: [],
    notes: readBetween(values),
    doubts: [
      ...unevenLoss(values, expandedUncertainty({ value: 0, components: gauge })),
      ...(start < needed ? [{ code: 'too-little-vacuum', vacuum: start, needed } as const] : []),
    ],
    vacuum: start,
  };
  if (loss < -expandedUncertainty({ value: loss, components }))
    return { ...nothingMeasured(ids, { code: 'gains', channel: 'supply_vacuum', gain: -loss }), ...common };
  // What was all gone by the end was gone some time before: it lost at least that much.
  if (end < noVacuum) {
    const problem = { code: 'all-gone', seconds } as const;
    const gone = leakFlow(loss * rate, scaleComponents(components, rate), flow);
    return {
      characteristics: [
        beyond('vacuum-loss', 'above', { value: loss, components }, problem),
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

/** A reading between the ends that lies off the straight line between them by more than the gauge's doubt: it was no even leak. */
function unevenLoss(values: TypedValues, expanded: number): AnalysisProblem[] {
  const { start, seconds, end, middle, 'middle-seconds': after } = values;
  if (middle === undefined || after === undefined || after >= seconds) return [];
  const expected = start + ((end - start) * after) / seconds;
  return Math.abs(middle - expected) > Math.max(uneven, expanded)
    ? [{ code: 'uneven-loss', off: middle - expected }]
    : [];
}

/** A reading that is said to be between the ends and is not is left out, and that is said. */
function readBetween({ seconds, 'middle-seconds': after }: TypedValues): AnalysisProblem[] {
  return after !== undefined && after >= seconds ? [{ code: 'not-between', after, seconds }] : [];
}
