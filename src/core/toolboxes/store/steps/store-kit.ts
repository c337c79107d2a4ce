import { columnOf, type Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import type { CautionId } from '../../../vocabulary/caution-id';
import { type DutyLimit, type GuidePhase, home } from '../../../procedure/guide-phase';
import type { BenchControls } from '../../../physics/bench-controls';
import { type Limit, around, limitFrom } from '../../../procedure/limit';
import { saying, type Answered } from '../../../procedure/question';
import type { StepContext } from '../../../procedure/step-context';
import { pumpRuns } from '../../../traces/pump-runs';
import { predictCharge } from '../model/charge-prediction';
import type { StoreCircuit, StoreUnit } from '../model/store-unit';
import type { ReadingBands } from '../../../procedure/expected';

/** Slow bleed of the bleed valve: a share of wide open that empties a store in a minute or two. */
export const slowBleed = 0.12;

/** Bleeds open and shut for this long bring a store from cut-out to cut-in. */
export const bleedTimes = { atMost: 600 } as const;

/** Once one pump has started the next is waited for no longer than this, s. */
const secondStart = 30;

/** A word with the ending of a circuit: of its characteristics' ids, or of its typed fields. */
export const idOf = <Base extends string, Ending extends '' | '-2' | '@2'>(base: Base, ending: Ending) =>
  `${base}${ending}` as const;

/** How a family's stores are worked. */
export interface StoreSetup<Unit> {
  readonly circuits: readonly StoreCircuit<Unit>[];
  readonly lever: string;
  /** Level of the lever for a stroke that takes the sheet's fluid, SI. */
  readonly strokeLevel: (context: StepContext<Unit>) => number;
  /** Controls under which the pumps run: a supplied motor, or the engine. */
  readonly live: Partial<BenchControls>;
  readonly driven: 'motor' | 'engine';
  readonly cautions: readonly CautionId[];
  /** Strokes do not draw on the store once its power is off: it is bled. */
  readonly emptiedBy?: 'bleed';
  readonly alarm: 'lamp-pressure' | 'alarm-pressure';
}

/** What the steps of a family's stores share: its circuits, its limits, and phases that wait for all of them. */
export function storeKit<Unit>(setup: StoreSetup<Unit>) {
  const { circuits, live } = setup;
  const pressures = circuits.map((circuit) => circuit.pressure);
  const pumps = circuits.map((circuit) => circuit.pump);
  const first = circuits[0];
  const storesOf = (context: StepContext<Unit>) => circuits.map((circuit) => circuit.storeOf(context.unit));
  const surroundingsOf = (context: StepContext<Unit>) => ({
    ambient: context.ambient.pressure,
    environment: context.airTemperature,
  });
  const dead = (context: StepContext<Unit>, store: StoreUnit) =>
    limitFrom(
      { field: 'deadKpa', value: store.dead ?? undefined },
      { key: 'deadPressure', value: context.workshopLimits.deadPressure },
    );

  function motorLimit(context: StepContext<Unit>): DutyLimit | undefined {
    const seconds = first.storeOf(context.unit).motorRunMax;
    return seconds === null ? undefined : { of: 'motor', channel: first.pump, seconds };
  }

  /** Note of a run that its duty limit ended. */
  function overrun(trace: Trace, context: StepContext<Unit>): AnalysisProblem[] {
    const limit = motorLimit(context);
    const pump = columnOf(trace, first.pump);
    if (!limit || !pump) return [];
    const longest = pumpRuns(pump).reduce(
      (most, { start, stop }) => Math.max(most, trace.time[stop ?? trace.time.length - 1] - trace.time[start]),
      0,
    );
    return longest >= limit.seconds - 0.3 ? [{ code: 'charged-too-long', of: limit.of, seconds: limit.seconds }] : [];
  }

  const withOverrun = (trace: Trace, context: StepContext<Unit>, found: Answered): Answered =>
    saying(found, overrun(trace, context));

  /** Everything runs until every pump has stopped: the first by its switching, the others by being off. */
  function untilCharged(context: StepContext<Unit>, instruction: GuidePhase['instruction']): GuidePhase[] {
    const longest = Math.max(
      ...storesOf(context).map((store) => predictCharge(store, surroundingsOf(context)).seconds),
    );
    const atMost = longest * 4 + 20;
    const common = { instruction, controls: live, lever: home, duty: motorLimit(context) } as const;
    return circuits.map(({ pump }, at) => ({
      ...common,
      end:
        at === 0
          ? { kind: 'switched', channel: pump, to: 0, times: 1, atMost }
          : { kind: 'reading', channel: pump, side: 'below', level: 0.5, atMost },
    }));
  }

  /** Bleeds until every pump has started, or has had its time to. */
  function untilStarted(context: StepContext<Unit>): GuidePhase[] {
    const common = {
      instruction: { code: 'bleed-to-start' },
      controls: { ...live, bleed: slowBleed * 1.5 },
      lever: home,
      duty: motorLimit(context),
    } as const;
    return circuits.map(({ pump }, at) => ({
      ...common,
      end:
        at === 0
          ? { kind: 'switched', channel: pump, to: 1, times: 1, ...bleedTimes }
          : { kind: 'reading', channel: pump, side: 'above', level: 0.5, atMost: secondStart },
    }));
  }

  function tolerances(store: StoreUnit, { workshopLimits: shop }: StepContext<Unit>) {
    return {
      precharge: limitFrom(
        { field: 'prechargeTolerancePercent', value: store.prechargeTolerance ?? undefined },
        { key: 'prechargeTolerance', value: shop.prechargeTolerance },
      ),
      switching: limitFrom(
        { field: 'switchTolerancePercent', value: store.switchTolerance ?? undefined },
        { key: 'switchTolerance', value: shop.switchTolerance },
      ),
    };
  }

  function chargeTimeLimit(store: StoreUnit, context: StepContext<Unit>) {
    return limitFrom(
      { field: 'chargeTimeMaxS', value: store.chargeTimeMax ?? undefined },
      {
        key: 'chargeTimeFactor',
        value: context.workshopLimits.chargeTimeFactor * predictCharge(store, surroundingsOf(context)).seconds,
      },
    );
  }

  const prechargeLimit = (circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Limit => {
    const store = circuit.storeOf(context.unit);
    return around(idOf('precharge', circuit.place), store.precharge, tolerances(store, context).precharge);
  };

  const switchLimit = (
    id: 'store-cut-in' | 'store-cut-out',
    circuit: StoreCircuit<Unit>,
    context: StepContext<Unit>,
  ): Limit => {
    const store = circuit.storeOf(context.unit);
    const expected = id === 'store-cut-in' ? store.cutIn : store.cutOut;
    return around(idOf(id, circuit.place), expected, tolerances(store, context).switching);
  };

  /** Bands of every circuit's pressure. */
  const bandsOf = (context: StepContext<Unit>, band: (store: StoreUnit) => readonly [number, number]): ReadingBands =>
    Object.fromEntries(circuits.map((circuit) => [circuit.pressure, band(circuit.storeOf(context.unit))]));

  return {
    ...setup,
    pressures,
    pumps,
    first,
    storesOf,
    surroundingsOf,
    dead,
    motorLimit,
    withOverrun,
    untilCharged,
    untilStarted,
    tolerances,
    chargeTimeLimit,
    prechargeLimit,
    switchLimit,
    bandsOf,
  };
}

export type StoreKit<Unit> = ReturnType<typeof storeKit<Unit>>;
