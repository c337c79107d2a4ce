import { meteringEntry } from '../../toolboxes/analysis/metering-entry';
import { analyseMetering } from '../../toolboxes/analysis/metering-analysis';
import { type Limit, around, atMost, limitFrom } from '../../procedure/limit';
import type { MeasuredStep } from '../../procedure/step-definition';
import type { CurvePicture } from '../../procedure/picture';
import type { ReadingBands } from '../../procedure/expected';
import { brakePressure, fullAngle, pressAngle, type PedalValveUnit } from './geometry';
import { wait } from '../../procedure/guide-phase';
import { lever, live, openOnce } from './step-parts';

type Measured = MeasuredStep<PedalValveUnit>;

const modulationTolerance = 0.1;

/** Both circuits over the pedal's angle. */
export const modulationPicture: CurvePicture<PedalValveUnit> = {
  kind: 'curve',
  input: lever,
  outputs: ['front_pressure', 'rear_pressure'],
  expected: (unit, _supply, { workshopLimits }) => {
    const point = (input: number, branch: 'apply' | 'way-back') => ({
      input,
      output: brakePressure(unit, input, branch),
    });
    const end = pressAngle(unit) * 1.04;
    return {
      apply: [0, unit.cutIn, fullAngle(unit), end].map((angle) => point(angle, 'apply')),
      wayBack: [0, unit.cutIn - unit.hysteresis, fullAngle(unit) - unit.hysteresis, end].map((angle) =>
        point(angle, 'way-back'),
      ),
      keyPoints: [
        { id: 'cut-in', ...point(unit.cutIn, 'apply') },
        { id: 'run-out', ...point(fullAngle(unit), 'apply') },
      ],
      tolerance: workshopLimits.slopeTolerance,
      inputEnd: end,
    };
  },
  band: (unit, angle) => pressureBand(unit, angle),
};

export const modulationCurve: Measured = {
  id: 'modulation-curve',
  kind: 'measured',
  title: 'Modulation curve',
  why: 'One slow press and back: cut-in, slope, regulated maximum and hysteresis, and how far the circuits are apart.',
  minutes: 3,
  cautions: ['fluid-jet', 'running-engine'],
  optional: false,
  characteristics: ['cut-in-travel', 'modulation-slope', 'regulated-maximum', 'angle-hysteresis', 'circuit-difference'],
  ...openOnce,
  feeds: {
    log: {
      needs: [lever, 'front_pressure'],
      uses: ['rear_pressure', 'accumulator_pressure'],
      leastRows: 60,
      bandwidth: 20,
    },
    live: {
      startsFrom: 'charged',
      guide: ({ unit }) => {
        const top = pressAngle(unit);
        return [
          wait({ code: 'rest', seconds: 2 }, live, 2),
          {
            instruction: { code: 'pull-slowly-past', channel: lever, level: top * 0.98 },
            controls: live,
            lever: { to: top, seconds: 25 },
            end: { kind: 'input-above', level: top * 0.98 },
          },
          wait({ code: 'hold-there', seconds: 2 }, live, 2, top),
          {
            instruction: { code: 'let-back-slowly', channel: lever },
            controls: live,
            lever: { to: 0, seconds: 25 },
            end: { kind: 'input-below', level: 0.3 },
          },
          wait({ code: 'rest', seconds: 2 }, live, 2),
        ];
      },
      bands: ({ unit }, readings): ReadingBands => {
        const angle = readings[lever];
        if (angle === undefined) return {};
        const [low, high] = pressureBand(unit, angle);
        return { front_pressure: [low, high], rear_pressure: [low, high] };
      },
    },
    dials: meteringEntry<PedalValveUnit>(
      {
        lever,
        ids: {
          cutIn: 'cut-in-travel',
          slope: 'modulation-slope',
          maximum: 'regulated-maximum',
          hysteresis: 'angle-hysteresis',
        },
      },
      ({ unit }, angle) => pressureBand(unit, angle),
    ),
  },
  analyse: (trace, context) =>
    analyseMetering(trace, context, {
      lever,
      supply: { channels: ['accumulator_pressure'], least: context.unit.regulatedMaximum },
      ids: {
        cutIn: 'cut-in-travel',
        slope: 'modulation-slope',
        maximum: 'regulated-maximum',
        hysteresis: 'angle-hysteresis',
      },
    }),
  limits: (_analysis, { unit, workshopLimits: shop }): Limit[] => {
    const tenth = { value: modulationTolerance, source: { kind: 'workshop', key: 'slopeTolerance' } } as const;
    const scaled = (value: number | undefined, factor: number) => (value === undefined ? undefined : value * factor);
    return [
      around('cut-in-travel', unit.cutIn, {
        value: shop.cutInTolerance,
        source: { kind: 'workshop', key: 'cutInTolerance' },
      }),
      around('modulation-slope', unit.modulation, {
        value: shop.slopeTolerance,
        source: { kind: 'workshop', key: 'slopeTolerance' },
      }),
      around('regulated-maximum', unit.regulatedMaximum, {
        ...tenth,
        source: { kind: 'workshop', key: 'boostRatioTolerance' },
      }),
      atMost(
        'angle-hysteresis',
        limitFrom(
          { field: 'hysteresisMaxDegrees', value: unit.spec.hysteresisMaxDegrees },
          { key: 'hysteresisFactor', value: shop.hysteresisFactor * unit.hysteresis },
        ),
        { expected: unit.hysteresis },
      ),
      atMost(
        'circuit-difference',
        limitFrom(
          { field: 'circuitDifferenceMaxKpa', value: scaled(unit.spec.circuitDifferenceMaxKpa, 1e3) },
          { key: 'circuitDifference', value: shop.circuitDifference * unit.regulatedMaximum },
        ),
        { expected: 0 },
      ),
    ];
  },
  pictures: [modulationPicture],
};

/** Brake pressure (Pa gauge) of a sound valve at an angle (°), lowest and highest, both branches. */
export function pressureBand(unit: PedalValveUnit, angle: number): readonly [number, number] {
  const shift = 0.12 * unit.cutIn;
  const low = brakePressure(unit, Math.max(0, angle - shift)) * (1 - modulationTolerance);
  const high = brakePressure(unit, angle + shift, 'way-back') * (1 + modulationTolerance);
  return [low, high];
}
