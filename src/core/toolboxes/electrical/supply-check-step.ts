import { entryFromReadings } from '../../dials/from-readings';
import { onGauge } from '../../dials/asked';
import type { GuidePhase } from '../../procedure/guide-phase';
import type { GuardedStep } from '../../procedure/interlock';
import { atMost } from '../../procedure/limit';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import type { CautionId } from '../../vocabulary/caution-id';
import type { TypedValues } from '../../procedure/typed-entry';
import { analyseDrops, leastCurrent } from './drops-analysis';
import type { SuppliedUnit } from './supplied-unit';

/** A battery on charge stands this far above the rated voltage; a reading meter in its feed is not its load. */
export const batteryAbove = 1.1;

/** How a unit is made to draw its most. */
export interface LoadSetup<Unit> {
  /** Channel of what is pushed, and how far it is pushed, SI. */
  readonly lever: string;
  readonly top: (context: StepContext<Unit>) => number;
  readonly guide: (context: StepContext<Unit>) => readonly GuidePhase[];
  readonly guards: Pick<GuardedStep, 'interlock' | 'brings'>;
  readonly cautions: readonly CautionId[];
}

/** Feed and ground of a unit, read while it draws most. */
export function supplyCheckStep<Unit extends SuppliedUnit>(setup: LoadSetup<Unit>): MeasuredStep<Unit> {
  const { lever } = setup;
  return {
    id: 'supply-check',
    kind: 'measured',
    title: 'Supply under load',
    why: 'A motor that gets too little voltage is weak through no fault of its own: read while it draws most.',
    minutes: 4,
    cautions: setup.cautions,
    optional: false,
    characteristics: ['supply-drop', 'ground-drop'],
    ...setup.guards,
    feeds: {
      log: {
        needs: ['motor_current', 'battery_voltage', 'supply_voltage'],
        uses: ['ground_voltage', lever],
        leastRows: 12,
      },
      live: {
        startsFrom: 'charged',
        guide: setup.guide,
        bands: (context) => {
          const { ratedVoltage, groundDropMax } = context.unit;
          return {
            battery_voltage: [ratedVoltage * 0.95, ratedVoltage * (batteryAbove + 0.05)],
            supply_voltage: [ratedVoltage * 0.92, ratedVoltage * (batteryAbove + 0.05)],
            ground_voltage: [0, groundDropMax],
            [lever]: [0, setup.top(context) * 1.05],
          };
        },
      },
      dials: entryFromReadings<Unit>({
        characteristics: () => ['supply-drop', 'ground-drop'],
        once: () => [
          onGauge('battery-rest', 'battery_voltage', 'Battery at rest', {
            optional: true,
            hint: 'With the next: what two meters or leads differ by is taken off',
          }),
          onGauge('unit-rest', 'supply_voltage', 'At the unit at rest', { optional: true }),
          onGauge('battery-loaded', 'battery_voltage', 'Battery under load'),
          onGauge('unit-loaded', 'supply_voltage', 'At the unit under load', {
            hint: 'Against battery negative, while it draws most',
          }),
          onGauge('ground-loaded', 'ground_voltage', 'Its ground against battery negative', { hint: 'Under load' }),
          onGauge('clamp', 'motor_current', 'Clamp meter under load', { optional: true }),
        ],
        reckon: ({ once }, { unit }) => {
          const needed = leastCurrent * unit.ratedCurrent;
          if (once.clamp < needed) return { code: 'current-too-small', current: once.clamp, needed };
          const asRead = (read: TypedValues) => {
            const pair = read['battery-rest'] - read['unit-rest'];
            return {
              supply: read['battery-loaded'] - read['unit-loaded'] - (Number.isFinite(pair) ? pair : 0),
              ground: read['ground-loaded'],
            };
          };
          // What is above its limit as it stands is told as it stands; the rest at the rated current, where a clamp shows what flowed.
          const { supply, ground } = asRead(once);
          const restated = (drop: number, limit: number, clamp: number | undefined) =>
            drop > limit || clamp === undefined ? 1 : Math.max(1, unit.ratedCurrent / clamp);
          return {
            figures: ({ once: read }) => {
              const drops = asRead(read);
              return {
                'supply-drop': drops.supply * restated(supply, unit.supplyDropMax, read.clamp),
                'ground-drop': drops.ground * restated(ground, unit.groundDropMax, read.clamp),
              };
            },
          };
        },
      }),
    },
    analyse: analyseDrops,
    limits: (_analysis, { unit }) => [
      atMost(
        'supply-drop',
        { value: unit.supplyDropMax, source: { kind: 'sheet', field: 'supplyDropMaxV' } },
        { expected: 0 },
      ),
      atMost(
        'ground-drop',
        { value: unit.groundDropMax, source: { kind: 'sheet', field: 'groundDropMaxV' } },
        { expected: 0 },
      ),
    ],
    pictures: [{ kind: 'over-time', channels: ['supply_voltage', 'battery_voltage', 'motor_current'] }],
  };
}
