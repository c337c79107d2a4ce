import { analysePressureHold, type PressureHoldOptions } from '../../../toolboxes/vacuum/pressure-hold-analysis';
import { pressureHoldEntry } from '../../../toolboxes/vacuum/pressure-hold-entry';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { ReadingBands } from '../../../procedure/expected';
import type { StepContext } from '../../../procedure/step-context';
import type { RemoteUnit } from '../unit/remote-unit';
import {
  appliedInput,
  decayLimits,
  decayShare,
  decayWatch,
  letBack,
  pullAndShut,
  rest,
  supplyOn,
  waitShut,
  type HeldPressure,
} from './step-parts';

/** Pressure of the low-pressure leak hold, Pa: lip seals that seal at high pressure may weep here. */
export const lowPressure = 400_000;

export const lowHoldSeconds = 30;

export const highHoldSeconds = 60;

/** What a layout's two pressure holds watch, and where it stands in a sound unit at full assist. */
export interface PressureHolds<Unit extends RemoteUnit> {
  readonly held: HeldPressure;
  readonly why: string;
  readonly withInputCreep: boolean;
  readonly outputBand: (context: StepContext<Unit>, input: number) => ReadingBands;
}

/** The holds at low pressure without vacuum, and at full assist. */
export function pressureHoldSteps<Unit extends RemoteUnit>(layout: PressureHolds<Unit>) {
  const { held, withInputCreep } = layout;
  const channels = [...new Set([held.channel, 'input_pressure'])];
  const analysed = held.channel === 'input_pressure' ? { held: held.channel } : {};
  const lowOptions: PressureHoldOptions = {
    seconds: lowHoldSeconds,
    withInputCreep: false,
    between: [0.5 * lowPressure, 2 * lowPressure],
    ...analysed,
  };
  const entryOf = (
    options: (context: StepContext<Unit>) => PressureHoldOptions,
    lockedIn: (context: StepContext<Unit>) => readonly [number, number],
  ) => pressureHoldEntry<Unit>({ options, lockedIn, limit: (context, at) => decayShare(context).value * at });
  const low: MeasuredStep<Unit> = {
    id: 'low-pressure-hold',
    kind: 'measured',
    title: 'Low-pressure hold',
    why: 'Lip seals that seal at high pressure may weep at low.',
    minutes: 2,
    cautions: ['fluid-jet', 'never-loosen'],
    optional: false,
    characteristics: [held.decay],
    feeds: {
      log: {
        needs: channels,
        uses: [],
        leastRows: 40,
        bandwidth: 10,
        neededRate: 2,
      },
      live: {
        startsFrom: 'vented',
        guide: () => [
          rest(1.5),
          pullAndShut(lowPressure, 2, {}),
          waitShut(lowPressure, lowHoldSeconds, {}),
          letBack({}),
        ],
        watch: (context) => decayWatch(context, lowHoldSeconds, held),
        bands: () => Object.fromEntries(channels.map((channel) => [channel, [300_000, 500_000] as const])),
      },
      dials: entryOf(
        () => lowOptions,
        () => [300_000, 500_000],
      ),
    },
    analyse: (trace, context) => analysePressureHold(trace, context, lowOptions),
    limits: (analysis, context) => decayLimits(analysis, context, { ...held, least: lowPressure }),
    pictures: [{ kind: 'over-time', channels }],
  };

  /** Lowest pressure that a sound unit holds at full assist. */
  const soundLow = (context: StepContext<Unit>) => {
    const input = appliedInput(context);
    return layout.outputBand(context, input)[held.channel]?.[0] ?? input;
  };

  const highOptions = (context: StepContext<Unit>): PressureHoldOptions => ({
    seconds: highHoldSeconds,
    withInputCreep,
    between: [0.6 * soundLow(context), Infinity],
    ...analysed,
  });

  const high: MeasuredStep<Unit> = {
    id: 'pressure-hold',
    kind: 'measured',
    title: 'Pressure hold',
    why: layout.why,
    minutes: 2,
    cautions: ['fluid-jet', 'never-loosen'],
    optional: false,
    characteristics: withInputCreep ? [held.decay, 'input-creep'] : [held.decay],
    feeds: {
      log: {
        needs: channels,
        uses: ['supply_vacuum'],
        leastRows: 40,
        bandwidth: 10,
        neededRate: 2,
      },
      live: {
        startsFrom: 'evacuated',
        guide: (context) => {
          const pressure = appliedInput(context);
          return [
            rest(1.5, supplyOn),
            pullAndShut(pressure, 5, supplyOn),
            waitShut(pressure, highHoldSeconds, supplyOn),
            letBack(supplyOn),
          ];
        },
        watch: (context) => decayWatch(context, highHoldSeconds, held),
        bands: (context) => {
          const input = appliedInput(context);
          return { ...layout.outputBand(context, input), input_pressure: [input * 0.95, input * 1.05] };
        },
      },
      dials: entryOf(highOptions, (context) => [0.95 * soundLow(context), 1.6 * soundLow(context)]),
    },
    analyse: (trace, context) => analysePressureHold(trace, context, highOptions(context)),
    limits: (analysis, context) => decayLimits(analysis, context, { ...held, least: soundLow(context) }),
    pictures: [{ kind: 'over-time', channels }],
  };

  return { low, high };
}
