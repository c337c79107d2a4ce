import { entryFromOnce } from '../../dials/from-readings';
import { byWatch, onGauge } from '../../dials/asked';
import type { CautionId } from '../../vocabulary/caution-id';
import type { GuidePhase } from '../../procedure/guide-phase';
import { type Limit, atMost, limitFrom } from '../../procedure/limit';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import { holdEntry } from './hold-entry';
import { analyseVacuumHold } from './hold-analysis';
import { analyseVacuumDraw } from './vacuum-draw-analysis';

/** Limits of a vacuum unit's sheet that its vacuum steps are judged by; every one falls back to the workshop's. */
export interface VacuumLimitFields {
  readonly restDifferenceMaxKpa?: number;
  readonly vacuumLossMaxKpa?: number;
  readonly vacuumLossSeconds?: number;
  readonly leakFlowMaxCm3PerMin?: number;
}

/** What the vacuum steps must know of a unit. */
export interface VacuumUnit {
  readonly spec: VacuumLimitFields;
  /** Whole shell, and the vacuum side when applied, m3; null where the sheet does not say. */
  readonly shellVolume: number | null;
  readonly appliedVolume: number | null;
}

/** How a family's unit is applied for the applied hold, and what holds it back. */
export interface VacuumSetup<Unit extends VacuumUnit> {
  /** Supply vacuum the source is set to, Pa. */
  readonly supplyVacuum: (context: StepContext<Unit>) => number;
  readonly leverChannel: string;
  /** Level of the lever at which the unit is fully applied, SI. */
  readonly appliedLevel: (context: StepContext<Unit>) => number;
  /** Phase that brings the lever to that level. */
  readonly apply: (level: number) => GuidePhase;
  readonly withControlPort: boolean;
  readonly holdWhy: { readonly rest: string; readonly applied: string };
  readonly appliedCautions: readonly CautionId[];
}

/** Time beyond the stated hold that covers shutting the source, s. */
export const holdMargin = 2;

export const supplyOn = { source: 1 } as const;

export const isolatedSupply = { source: 1, isolated: 1 } as const;

export const home = { to: 0, seconds: 0 } as const;

/** Rest before a hold, s: what the hold's analysis leaves off at its start, so that a hold may end at any time. */
const settledBefore = 1;

/** Lever at rest for `seconds`. */
export function rest(seconds: number, controls: GuidePhase['controls'] = {}): GuidePhase {
  return { instruction: { code: 'rest', seconds }, controls, lever: home, end: { kind: 'seconds', seconds } };
}

export function vacuumLossSeconds(context: StepContext<VacuumUnit>): number {
  return context.unit.spec.vacuumLossSeconds ?? context.workshopLimits.vacuumLossSeconds;
}

/** Vacuum (Pa) that may be lost over the stated time, with where the figure comes from. */
export function vacuumLossLimit(context: StepContext<VacuumUnit>) {
  const { spec } = context.unit;
  return limitFrom(
    { field: 'vacuumLossMaxKpa', value: spec.vacuumLossMaxKpa === undefined ? undefined : spec.vacuumLossMaxKpa * 1e3 },
    { key: 'vacuumLoss', value: context.workshopLimits.vacuumLoss },
  );
}

function holdLimits(context: StepContext<VacuumUnit>): Limit[] {
  const limits = [atMost('vacuum-loss', vacuumLossLimit(context), { expected: 0 })];
  const flow = context.unit.spec.leakFlowMaxCm3PerMin;
  if (flow !== undefined) {
    const value = (flow * 1e-6) / 60;
    limits.push(
      atMost('leak-flow', { value, source: { kind: 'sheet', field: 'leakFlowMaxCm3PerMin' } }, { expected: 0 }),
    );
  }
  return limits;
}

const drawSeconds = 20;

/** Vacuum draw, hold at rest and hold applied of a vacuum unit: the same steps for every family that has them. */
export function vacuumUnitSteps<Unit extends VacuumUnit>(setup: VacuumSetup<Unit>) {
  const holdBand = (context: StepContext<Unit>): readonly [number, number] => {
    const vacuum = setup.supplyVacuum(context);
    return [vacuum - vacuumLossLimit(context).value, vacuum];
  };
  const shutAndWait = (context: StepContext<Unit>, level: number): GuidePhase => {
    const seconds = vacuumLossSeconds(context) + holdMargin;
    return {
      instruction: { code: 'shut-source-and-wait', seconds },
      hold: 'watched',
      controls: isolatedSupply,
      lever: { to: level, seconds: 0 },
      end: { kind: 'seconds', seconds },
    };
  };
  const controlPort = setup.withControlPort ? ['control_vacuum'] : [];

  const draw: MeasuredStep<Unit> = {
    id: 'vacuum-draw',
    kind: 'measured',
    title: 'Vacuum draw',
    why: setup.withControlPort
      ? 'At rest supply and control must settle to the same vacuum; a slow draw is a leak or a blocked line.'
      : 'The shell must draw down quickly and settle; a slow draw is a leak, a blocked line or a blocked check valve.',
    minutes: 1,
    cautions: ['vacuum-exhaust'],
    optional: false,
    characteristics: setup.withControlPort ? ['draw-time', 'rest-difference'] : ['draw-time'],
    feeds: {
      log: {
        needs: ['supply_vacuum'],
        uses: controlPort,
        leastRows: 20,
      },
      live: {
        startsFrom: 'vented',
        guide: () => [
          { instruction: { code: 'vacuum-off-rest' }, controls: {}, lever: home, end: { kind: 'seconds', seconds: 1 } },
          {
            instruction: { code: 'open-vacuum', seconds: drawSeconds },
            controls: supplyOn,
            lever: home,
            end: { kind: 'seconds', seconds: drawSeconds },
          },
        ],
        bands: (context) => {
          const vacuum = setup.supplyVacuum(context);
          const band = [vacuum - 2_000, vacuum + 2_000] as const;
          return Object.fromEntries(['supply_vacuum', ...controlPort].map((channel) => [channel, band]));
        },
      },
      dials: entryFromOnce<Unit>(
        setup.withControlPort ? ['draw-time', 'rest-difference'] : ['draw-time'],
        () => [
          byWatch('drawn-after', 'From opening until the needle stands', { optional: true }),
          ...(setup.withControlPort
            ? [
                onGauge('supply-stands', 'supply_vacuum', 'Supply gauge, once it stands'),
                onGauge('control-stands', 'control_vacuum', 'Control gauge, once it stands'),
              ]
            : []),
        ],
        (read) => ({
          'draw-time': read['drawn-after'],
          ...(setup.withControlPort ? { 'rest-difference': read['supply-stands'] - read['control-stands'] } : {}),
        }),
        { 'rest-difference': ['supply-stands', '−', 'control-stands'] },
      ),
    },
    analyse: (trace, context) =>
      analyseVacuumDraw(trace, context, {
        withControlPort: setup.withControlPort,
        supplyVacuum: setup.supplyVacuum(context),
      }),
    limits: (_analysis, { unit: { spec }, workshopLimits: shop }) => {
      if (!setup.withControlPort) return [];
      const sheet = spec.restDifferenceMaxKpa === undefined ? undefined : spec.restDifferenceMaxKpa * 1e3;
      const from = limitFrom(
        { field: 'restDifferenceMaxKpa', value: sheet },
        { key: 'restDifference', value: shop.restDifference },
      );
      return [atMost('rest-difference', from, { expected: 0 })];
    },
    pictures: [{ kind: 'over-time', channels: ['supply_vacuum', ...controlPort] }],
  };

  const hold = (
    applied: boolean,
    guide: (context: StepContext<Unit>) => readonly GuidePhase[],
    uses: readonly string[],
  ): MeasuredStep<Unit> => ({
    id: applied ? 'vacuum-hold-applied' : 'vacuum-hold-rest',
    kind: 'measured',
    title: applied ? 'Vacuum hold, applied' : 'Vacuum hold, at rest',
    why: applied ? setup.holdWhy.applied : setup.holdWhy.rest,
    minutes: 1,
    cautions: applied ? [...setup.appliedCautions, 'stored-vacuum'] : ['stored-vacuum'],
    optional: false,
    characteristics: ['vacuum-loss', 'leak-flow'],
    feeds: {
      log: {
        needs: ['supply_vacuum'],
        uses,
        leastRows: 8,
        bandwidth: 10,
        neededRate: 2,
      },
      live: {
        startsFrom: 'evacuated',
        guide,
        watch: (context) => ({
          channel: 'supply_vacuum',
          seconds: vacuumLossSeconds(context),
          limit: () => vacuumLossLimit(context).value,
        }),
        bands: (context) => ({ supply_vacuum: holdBand(context) }),
      },
      dials: holdEntry<Unit>({
        seconds: vacuumLossSeconds,
        limit: (context) => vacuumLossLimit(context).value,
        supplyVacuum: setup.supplyVacuum,
        volume: ({ unit }) => (applied ? unit.appliedVolume : unit.shellVolume),
      }),
    },
    analyse: (trace, context) =>
      analyseVacuumHold(trace, context, {
        seconds: vacuumLossSeconds(context),
        volume: applied ? context.unit.appliedVolume : context.unit.shellVolume,
        supplyVacuum: setup.supplyVacuum(context),
        leverChannel: setup.leverChannel,
        appliedLevel: applied ? setup.appliedLevel(context) : null,
        appliesAt: setup.appliedLevel(context),
      }),
    limits: (_analysis, context) => holdLimits(context),
    pictures: [{ kind: 'over-time', channels: ['supply_vacuum'] }],
  });

  return {
    draw,
    holdAtRest: hold(false, (context) => [rest(settledBefore, supplyOn), shutAndWait(context, 0)], [
      setup.leverChannel,
      ...controlPort,
    ]),
    holdApplied: hold(
      true,
      (context) => {
        const level = setup.appliedLevel(context);
        return [rest(1, supplyOn), setup.apply(level), shutAndWait(context, level)];
      },
      [setup.leverChannel, ...controlPort],
    ),
  };
}
