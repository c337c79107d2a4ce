import { pumpDownEntry } from './pump-down-entry';
import { type GuidePhase, wait } from '../../procedure/guide-phase';
import { type Limit, atMost, limitFrom } from '../../procedure/limit';
import type { ReadingBands } from '../../procedure/expected';
import { settledVacuum, thresholds } from './geometry';
import { analysePumpSwitch } from './pump-analyses';
import { analysePumpDown } from './pump-down-analysis';

import { fraction, off, on, pedal, settlingSeconds, stroke, type Measured } from './step-parts';

export const pumpDown: Measured = {
  id: 'pump-down',
  kind: 'measured',
  title: 'Pump-down',
  why: 'From the atmosphere, started with the scan tool: how fast it draws tells wear or a narrow hose, how far tells wear alone.',
  minutes: 2,
  cautions: ['running-engine'],
  optional: false,
  characteristics: ['pump-speed', 'ultimate-pressure', 'draw-time'],
  feeds: {
    log: {
      needs: ['supply_vacuum'],
      uses: ['reservoir_vacuum', 'pump_on'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'vented',
      guide: (context) => [
        wait({ code: 'vacuum-off-rest' }, off, 1),
        context.unit.electric
          ? wait({ code: 'actuate-pump', seconds: settlingSeconds(context) }, { actuate: 1 }, settlingSeconds(context))
          : wait({ code: 'start-engine', seconds: settlingSeconds(context) }, on, settlingSeconds(context)),
      ],
      bands: (context) => {
        const settled = settledVacuum(context.unit, context.ambient);
        return { supply_vacuum: [settled * 0.95, settled * 1.03] };
      },
    },
    dials: pumpDownEntry,
  },
  analyse: analysePumpDown,
  limits: (_analysis, context): Limit[] => {
    const { unit, workshopLimits: shop, ambient } = context;
    const speed = limitFrom(
      { field: 'pumpSpeedTolerancePercent', value: fraction(unit.spec.pumpSpeedTolerancePercent) },
      { key: 'pumpSpeedTolerance', value: shop.pumpSpeedTolerance },
    );
    const ultimate = limitFrom(
      { field: 'ultimateTolerancePercent', value: fraction(unit.spec.ultimateTolerancePercent) },
      { key: 'ultimateTolerance', value: shop.ultimateTolerance },
    );
    const expected = ambient.pressure - settledVacuum(unit, ambient);
    const limits: Limit[] = [
      {
        characteristic: 'pump-speed',
        low: unit.speed * (1 - speed.value),
        high: null,
        expected: unit.speed,
        standard: 0,
        source: speed.source,
      },
      {
        characteristic: 'ultimate-pressure',
        low: null,
        high: expected * (1 + ultimate.value),
        expected,
        standard: 0,
        source: ultimate.source,
        ...(unit.spec.sourceKind === undefined ? { withheld: { code: 'source-kind-missing' } } : {}),
      },
    ];
    const most = unit.spec.drawTimeMaxS;
    if (most !== undefined)
      limits.push(atMost('draw-time', { value: most, source: { kind: 'sheet', field: 'drawTimeMaxS' } }));
    return limits;
  },
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'reservoir_vacuum'] }],
};

/** Runs of the pump that are waited for. */
const strokesToStart = 6;

export const pumpSwitch: Measured = {
  id: 'pump-switch',
  kind: 'measured',
  title: 'Pump starts and stops',
  why: 'Strokes bring the vacuum down until the pump starts; it must build, not merely run, and stop again.',
  minutes: 3,
  cautions: ['running-engine'],
  optional: true,
  characteristics: ['pump-cut-in', 'pump-cut-out', 'run-time'],
  feeds: {
    log: {
      needs: ['supply_vacuum', 'pump_on'],
      uses: [pedal, 'reservoir_vacuum'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'evacuated',
      guide: (context) => {
        const running = Math.max(6, (3 * context.unit.volume) / context.unit.speed);
        const round = (from: number): GuidePhase[] => [
          ...Array.from({ length: strokesToStart }, (_, at) => stroke(from + at, on)).flat(),
          wait({ code: 'watch-pump', seconds: running }, on, running),
        ];
        return [wait({ code: 'rest', seconds: 1 }, on, 1), ...round(1), ...round(strokesToStart + 1)];
      },
      bands: (context): ReadingBands => {
        const here = thresholds(context.unit, context.ambient);
        return here ? { supply_vacuum: [here.cutIn, here.cutOut] } : {};
      },
    },
  },
  analyse: analysePumpSwitch,
  limits: (_analysis, context): Limit[] => {
    const { unit, workshopLimits: shop, ambient } = context;
    const here = thresholds(unit, ambient);
    if (!here) return [];
    const from = limitFrom(
      { field: 'switchTolerancePercent', value: fraction(unit.spec.switchTolerancePercent) },
      { key: 'switchTolerance', value: shop.switchTolerance },
    );
    const around = (characteristic: 'pump-cut-in' | 'pump-cut-out', expected: number, written: number): Limit => ({
      characteristic,
      low: expected - from.value * written,
      high: expected + from.value * written,
      expected,
      standard: 0,
      source: from.source,
      ...(unit.spec.sensorReference === 'absolute' ? { restatedFrom: written } : {}),
    });
    const limits = [
      around('pump-cut-in', here.cutIn, (unit.spec.cutInVacuumKpa ?? 0) * 1e3),
      around('pump-cut-out', here.cutOut, (unit.spec.cutOutVacuumKpa ?? 0) * 1e3),
    ];
    const most = unit.spec.runTimeMaxS;
    return most === undefined
      ? limits
      : [...limits, atMost('run-time', { value: most, source: { kind: 'sheet', field: 'runTimeMaxS' } })];
  },
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'pump_on'] }],
};
