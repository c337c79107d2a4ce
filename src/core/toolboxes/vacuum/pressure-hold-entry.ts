import { plausibleRange } from '../../dials/plausible-range';
import { watchStandard } from '../../dials/stopwatch';
import {
  differenceComponents,
  differenceResolution,
  expandedUncertainty,
  random,
  scaleComponents,
  stabilityComponent,
  systematic,
} from '../../instruments/uncertainty';
import { leftBy, proportional, throughHole } from '../../physics/leak-laws';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import type { TypedEntry, TypedField, TypedValues } from '../../procedure/typed-entry';
import { farFromLimit } from './far-from-limit';
import type { PressureHoldOptions } from './pressure-hold-analysis';

/** A gauge at its zero may hide this much, Pa. */
const noneLeft = 10e3;

/** A locked-in pressure as it is read off a dial. */
export interface PressureHoldEntrySetup<Unit> {
  readonly options: (context: StepContext<Unit>) => PressureHoldOptions;
  /** Most that may go, Pa/s, of a pressure that was locked in at so much (Pa gauge). */
  readonly limit: (context: StepContext<Unit>, held: number) => number;
  /** Where the pressure of a sound unit is locked in, Pa gauge. */
  readonly lockedIn: (context: StepContext<Unit>) => readonly [number, number];
}

/** Entry of a pressure hold: what the gauge showed once it was shut off, and after how long what then. */
export function pressureHoldEntry<Unit>(setup: PressureHoldEntrySetup<Unit>): TypedEntry<Unit> {
  return {
    fields: (context, values) => {
      const options = setup.options(context);
      const channel = options.held ?? 'output_pressure';
      const [low, high] = setup.lockedIn(context);
      const { start, seconds } = values;
      const gauge = (id: string, title: string, hint: string, of: string): TypedField => ({
        id,
        title,
        hint,
        as: 'gauge',
        channel: of,
        expected: null,
        plausible: plausibleRange('gauge', of, context),
        optional: false,
      });
      const name = options.held ? 'Pressure' : 'Output';
      return [
        {
          ...gauge('start', `${name} at the start`, 'A few seconds after it was shut off', channel),
          expected: { low, high },
        },
        {
          id: 'seconds',
          title: 'Held for',
          hint: `The limit is stated at ${options.seconds} s; longer while little is lost`,
          as: 'time',
          channel: null,
          expected: null,
          plausible: [5, 86_400],
          optional: false,
        },
        {
          ...gauge('end', `${name} at the end`, '', channel),
          expected:
            start === undefined || seconds === undefined || start < noneLeft
              ? null
              : { low: leftOfAllowed(start, seconds, options.seconds, setup.limit(context, start)), high: start },
        },
        ...(options.withInputCreep
          ? [
              { ...gauge('input-start', 'Input at the start', '', 'input_pressure'), optional: true },
              { ...gauge('input-end', 'Input at the end', '', 'input_pressure'), optional: true },
            ]
          : []),
      ];
    },
    analyse: (values, context) => analyse(values, context, setup.options(context)),
  };
}

function analyse(values: TypedValues, context: StepContext<unknown>, options: PressureHoldOptions): StepAnalysis {
  const channel = options.held ?? 'output_pressure';
  const decayRate = options.held ? 'input-decay-rate' : 'output-decay-rate';
  const ids = options.withInputCreep ? ([decayRate, 'input-creep'] as const) : ([decayRate] as const);
  const { start, seconds, end } = values;
  if (start === undefined || seconds === undefined || end === undefined || !(seconds > 0))
    return nothingMeasured(ids, { code: 'not-read' });
  const [low, high] = options.between;
  if (start < low || start > high) return nothingMeasured(ids, { code: 'held-elsewhere', at: start, low, high });
  const decay = rateOf(decayRate, { channel, from: end, to: start, seconds, stated: options.seconds }, context);
  const { 'input-start': before, 'input-end': after } = values;
  const creep: Characteristic =
    before === undefined || after === undefined
      ? absent('input-creep', { code: 'not-read' })
      : rateOf(
          'input-creep',
          { channel: 'input_pressure', from: before, to: after, seconds, stated: options.seconds },
          context,
        );
  return {
    characteristics: options.withInputCreep ? [decay, creep] : [decay],
    events: [],
    notes: [],
    doubts: farFromLimit(start, { seconds, end }, options.seconds),
    held: start,
  };
}

/** What the largest leak that is allowed (Pa/s over `stated` s) leaves of `start` (Pa gauge) after so long, by the law that leaves least, Pa. */
function leftOfAllowed(start: number, after: number, stated: number, limit: number): number {
  const to = Math.max(start - limit * stated, noneLeft);
  return Math.min(...[proportional, throughHole].map((law) => leftBy(law, { from: start, to, span: stated }, after)));
}

interface Read {
  readonly channel: string;
  readonly from: number;
  readonly to: number;
  readonly seconds: number;
  readonly stated: number;
}

/**
 * Rate (Pa/s) over the stated time, by what every law that a leak follows would have left then, with the dial, the watch, and what a
 * short watch does not say of the full time.
 */
function rateOf(
  id: 'output-decay-rate' | 'input-decay-rate' | 'input-creep',
  { channel, from, to, seconds, stated }: Read,
  context: StepContext<unknown>,
): Characteristic {
  const change = to - from;
  const over = Math.min(seconds, stated);
  const laws = [proportional, throughHole].map(
    (law) => to - leftBy(law, { from: to, to: Math.max(from, noneLeft), span: seconds }, over),
  );
  const [low, high] =
    change > 0 ? [Math.min(...laws), Math.max(...laws)] : [change, change].map((all) => (all * over) / seconds);
  const gone = (low + high) / 2;
  const share = change === 0 ? over / seconds : Math.abs(gone / change);
  const instrument = context.instruments.get(channel);
  const gauge = instrument
    ? [
        differenceResolution(instrument),
        ...differenceComponents(instrument, from, to, context.date),
        stabilityComponent(instrument, to, seconds, context.date),
      ]
    : [];
  const components = [
    random('timing', (Math.abs(gone) * watchStandard) / seconds),
    random('fit', (Math.abs(gone) * Math.max(0, 1 - seconds / stated)) / Math.sqrt(3)),
    systematic('model', (high - low) / 2 / Math.sqrt(3)),
    ...scaleComponents(gauge, share),
  ];
  // What is locked in can fall, never rise by itself; an input may be pushed up by what comes back.
  if (id !== 'input-creep' && gone < -expandedUncertainty({ value: gone, components }))
    return absent(id, { code: 'gains', channel, gain: -change });
  return measured(id, gone / over, scaleComponents(components, 1 / over));
}
