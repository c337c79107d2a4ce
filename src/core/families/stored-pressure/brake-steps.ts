import { meteringEntry } from '../../toolboxes/analysis/metering-entry';
import { plainCurve } from '../../procedure/picture';
import { analyseBump } from './bump-analysis';
import { around, atMost, limitFrom } from '../../procedure/limit';
import { analyseMetering } from '../../toolboxes/analysis/metering-analysis';
import type { MeasuredStep } from '../../procedure/step-definition';
import type { ReadingBands } from '../../procedure/expected';
import { brakePressure, pressForce, type StoredPressureUnit } from './geometry';
import { wait } from '../../procedure/guide-phase';
import { lever, live, openOnce } from './step-parts';

type Measured = MeasuredStep<StoredPressureUnit>;

export const bump: Measured = {
  id: 'bump',
  kind: 'measured',
  title: 'Over a bump',
  why: 'A failed levelling restrictor sends the wheel’s push into the brakes: a little brake over every bump.',
  minutes: 5,
  cautions: ['levelling-drops', 'running-engine'],
  optional: false,
  characteristics: ['bump-pressure'],
  ...openOnce,
  feeds: {
    log: {
      needs: ['front_pressure'],
      uses: ['rear_pressure', lever, 'ride_height'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'charged',
      guide: ({ unit }) => [
        wait({ code: 'rest', seconds: 2 }, live, 2),
        // The gauge is seen to work before its silence counts.
        {
          instruction: { code: 'pull-to-hold', channel: lever, level: 0.5 * pressForce(unit), seconds: 1 },
          controls: live,
          lever: { to: 0.5 * pressForce(unit), seconds: 1 },
          end: { kind: 'input-held', level: 0.5 * pressForce(unit), tolerance: 0.2 * pressForce(unit), seconds: 1 },
        },
        {
          instruction: { code: 'let-go', channel: lever },
          controls: live,
          lever: { to: 0, seconds: 0.5 },
          end: { kind: 'input-below', level: 5 },
        },
        wait({ code: 'rest', seconds: 3 }, live, 3),
        wait({ code: 'drive-over-bump' }, { ...live, actuate: 1 }, 5),
        wait({ code: 'rest', seconds: 2 }, live, 2),
      ],
      bands: ({ workshopLimits }) => ({
        front_pressure: [0, workshopLimits.bumpPressure],
        rear_pressure: [0, workshopLimits.bumpPressure],
      }),
    },
  },
  analyse: (trace, context) => analyseBump(trace, context, context.workshopLimits.bumpPressure),
  limits: (_analysis, { unit, workshopLimits }) => [
    atMost(
      'bump-pressure',
      limitFrom(
        {
          field: 'bumpPressureMaxKpa',
          value: unit.spec.bumpPressureMaxKpa === undefined ? undefined : unit.spec.bumpPressureMaxKpa * 1e3,
        },
        { key: 'bumpPressure', value: workshopLimits.bumpPressure },
      ),
      { expected: 0 },
    ),
  ],
  pictures: [{ kind: 'over-time', channels: ['front_pressure', 'ride_height'] }],
};

/** Brake pressure (Pa gauge) of a sound metering valve at a pedal force (N), lowest and highest. */
export function meteringBand(unit: StoredPressureUnit, force: number): readonly [number, number] {
  const shift = 0.25 * unit.cutInForce;
  return [brakePressure(unit, force - shift) * 0.93, brakePressure(unit, force + shift) * 1.07];
}

export const meteringCurve: Measured = {
  id: 'metering-curve',
  kind: 'measured',
  title: 'Metering valves',
  why: 'Pedal force against both circuits’ pressures: where they begin, how steeply they rise, and how far they are apart.',
  minutes: 4,
  cautions: ['fluid-jet', 'running-engine'],
  optional: false,
  characteristics: ['cut-in-force', 'metering-slope', 'circuit-difference'],
  ...openOnce,
  feeds: {
    log: {
      needs: [lever, 'front_pressure'],
      uses: ['rear_pressure'],
      leastRows: 60,
    },
    live: {
      startsFrom: 'charged',
      guide: ({ unit }) => {
        const top = pressForce(unit);
        return [
          wait({ code: 'rest', seconds: 2 }, live, 2),
          {
            instruction: { code: 'pull-slowly-past', channel: lever, level: top },
            controls: live,
            lever: { to: top * 1.02, seconds: 25 },
            end: { kind: 'input-above', level: top },
          },
          wait({ code: 'hold-there', seconds: 2 }, live, 2, top * 1.02),
          {
            instruction: { code: 'let-back-slowly', channel: lever },
            controls: live,
            lever: { to: 0, seconds: 20 },
            end: { kind: 'input-below', level: 5 },
          },
          wait({ code: 'rest', seconds: 2 }, live, 2),
        ];
      },
      bands: ({ unit }, readings): ReadingBands => {
        const force = readings[lever];
        if (force === undefined) return {};
        const band = meteringBand(unit, force);
        return { front_pressure: band, rear_pressure: band };
      },
    },
    dials: meteringEntry<StoredPressureUnit>(
      { lever, ids: { cutIn: 'cut-in-force', slope: 'metering-slope', maximum: null, hysteresis: null } },
      ({ unit }, force) => meteringBand(unit, force),
    ),
  },
  analyse: (trace, context) =>
    analyseMetering(trace, context, {
      lever,
      supply: {
        channels: ['accumulator_pressure', 'accumulator_pressure_2'],
        least: context.unit.meteringSlope * (pressForce(context.unit) - context.unit.cutInForce),
      },
      ids: { cutIn: 'cut-in-force', slope: 'metering-slope', maximum: null, hysteresis: null },
    }),
  limits: (_analysis, { unit, workshopLimits: shop }) => [
    around('cut-in-force', unit.cutInForce, {
      value: shop.cutInForceTolerance,
      source: { kind: 'workshop', key: 'cutInForceTolerance' },
    }),
    around('metering-slope', unit.meteringSlope, {
      value: shop.boostRatioTolerance,
      source: { kind: 'workshop', key: 'boostRatioTolerance' },
    }),
    atMost(
      'circuit-difference',
      limitFrom(
        {
          field: 'circuitDifferenceMaxKpa',
          value: unit.spec.circuitDifferenceMaxKpa === undefined ? undefined : unit.spec.circuitDifferenceMaxKpa * 1e3,
        },
        { key: 'circuitDifference', value: shop.circuitDifference * unit.regulatedMaximum },
      ),
      { expected: 0 },
    ),
  ],
  pictures: [
    plainCurve({
      input: lever,
      outputs: ['front_pressure', 'rear_pressure'],
      inputEnd: (unit) => pressForce(unit) * 1.06,
      band: meteringBand,
    }),
  ],
};
