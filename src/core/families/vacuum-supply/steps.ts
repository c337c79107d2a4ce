import { analyseCheckValve } from '../../toolboxes/vacuum/check-valve-analysis';
import { analyseSourceVacuum, leastVacuumLimits } from '../../toolboxes/vacuum/source-vacuum-analysis';
import { heldWait, type GuidePhase, home, wait } from '../../procedure/guide-phase';
import { type Limit, atMost, limitFrom } from '../../procedure/limit';
import { type LookStep, inOrderOptions } from '../../procedure/look-step';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep, StepDefinition } from '../../procedure/step-definition';
import type { ReadingBands } from '../../procedure/expected';
import { pumpDownVacuum, settledVacuum, thresholds, type VacuumSupplyUnit } from './geometry';
import { sourceSketch } from './sketch';
import { analyseDemand, analysePumpSwitch, analyseRestLeak } from './pump-analyses';
import { analysePumpDown } from './pump-down-analysis';

type Context = StepContext<VacuumSupplyUnit>;
type Measured = MeasuredStep<VacuumSupplyUnit>;

const pedal = 'pedal_force';
const on: GuidePhase['controls'] = { engine: 1 };
const off: GuidePhase['controls'] = {};
/** Pedal force of a stroke, N. */
const strokeForce = 150;

function stroke(number: number, controls: GuidePhase['controls']): GuidePhase[] {
  const instruction = { code: 'stroke', channel: pedal, level: strokeForce, number } as const;
  return [
    {
      instruction,
      controls,
      lever: { to: strokeForce, seconds: 0.5 },
      end: { kind: 'input-held', level: strokeForce, tolerance: 0.15 * strokeForce, seconds: 0.8 },
    },
    { instruction, controls, lever: { to: 0, seconds: 0.3 }, end: { kind: 'input-below', level: 10 } },
    { instruction, controls, lever: home, end: { kind: 'seconds', seconds: 1.5 } },
  ];
}

const lookOver: LookStep = {
  id: 'look-over',
  kind: 'look',
  title: 'Look over',
  why: 'Hoses, belt and plugs first: most of what looks like a pump is a hose.',
  minutes: 3,
  cautions: ['running-engine'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: sourceSketch,
      points: [
        {
          id: 'hoses',
          title: 'Hoses and clips',
          hint: 'Vacuum hose, not fuel hose; tight, not oil-soft, no hiss',
          at: [150, 60],
        },
        {
          id: 'pump',
          title: 'Pump and its drive',
          hint: 'Belt or coupling whole, no oil thrown, mounted fast',
          at: [84, 110],
        },
        {
          id: 'wiring',
          title: 'Wiring and fuse',
          hint: 'Electric pump: plug, fuse, ground; skip what is not there',
          at: [50, 150],
        },
        { id: 'reservoir', title: 'Reservoir', hint: 'Not dented, not rusted through, drain shut', at: [236, 120] },
      ],
      options: inOrderOptions,
    },
  },
};

/** Time in which a sound source has settled, s. */
function settlingSeconds({ unit }: Context): number {
  return Math.max(8, (5 * unit.volume) / unit.speed);
}

const sourceVacuum: Measured = {
  id: 'source-vacuum',
  kind: 'measured',
  title: 'Source vacuum',
  why: 'Engine idling or pump running: enough at rest, and after two strokes still enough while the pedal is held.',
  minutes: 3,
  cautions: ['running-engine'],
  optional: false,
  characteristics: ['idle-vacuum', 'held-vacuum'],
  feeds: {
    log: {
      needs: ['supply_vacuum'],
      uses: [pedal, 'reservoir_vacuum', 'pump_on'],
      leastRows: 10,
    },
    live: {
      startsFrom: 'vented',
      guide: (context) => [
        wait({ code: 'start-engine', seconds: settlingSeconds(context) }, on, settlingSeconds(context)),
        ...stroke(1, on),
        ...stroke(2, on),
        {
          instruction: { code: 'pull-to-hold', channel: pedal, level: strokeForce, seconds: 1 },
          controls: on,
          lever: { to: strokeForce, seconds: 0.6 },
          end: { kind: 'input-held', level: strokeForce, tolerance: 0.15 * strokeForce, seconds: 1 },
        },
        {
          instruction: { code: 'hold-there', seconds: settlingSeconds(context) },
          controls: on,
          lever: { to: strokeForce, seconds: 0 },
          end: { kind: 'seconds', seconds: settlingSeconds(context) },
        },
        {
          instruction: { code: 'let-back-slowly', channel: pedal },
          controls: on,
          lever: { to: 0, seconds: 0.5 },
          end: { kind: 'input-below', level: 10 },
        },
        wait({ code: 'rest', seconds: 1 }, on, 1),
      ],
      bands: (context) => {
        const [{ low }] = leastVacuumLimits(['idle-vacuum'], context.unit.spec.sourceKind, context);
        return { supply_vacuum: [low ?? 0, settledVacuum(context.unit, context.ambient) * 1.03] };
      },
    },
  },
  analyse: (trace, context) => analyseSourceVacuum(trace, context, pedal),
  limits: (_analysis, context) =>
    leastVacuumLimits(['idle-vacuum', 'held-vacuum'], context.unit.spec.sourceKind, context),
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'reservoir_vacuum'] }],
};

const fraction = (percent: number | undefined) => (percent === undefined ? undefined : percent / 100);

const pumpDown: Measured = {
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

const pumpSwitch: Measured = {
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

/** Time the reservoir is watched for a leak, s. */
const restSeconds = 60;

const restLeak: Measured = {
  id: 'rest-leak',
  kind: 'measured',
  title: 'Leak at rest',
  why: 'Nobody on the pedal: how long the vacuum lasts between two runs, and what flow that is.',
  minutes: 3,
  cautions: ['stored-vacuum'],
  optional: false,
  characteristics: ['rest-time', 'leak-flow'],
  feeds: {
    log: {
      needs: ['supply_vacuum'],
      uses: ['pump_on', 'reservoir_vacuum'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'evacuated',
      guide: (context) => [
        // A driven source stops with its engine; an electric pump waits for its switch.
        wait({ code: 'watch-pump', seconds: restSeconds }, context.unit.electric ? on : off, restSeconds),
      ],
      bands: () => ({}),
    },
  },
  analyse: analyseRestLeak,
  limits: (_analysis, context): Limit[] => {
    const { spec } = context.unit;
    const limits: Limit[] = [];
    if (spec.restTimeMinS !== undefined && context.unit.electric)
      limits.push({
        characteristic: 'rest-time',
        low: spec.restTimeMinS,
        high: null,
        expected: null,
        standard: 0,
        source: { kind: 'sheet', field: 'restTimeMinS' },
      });
    const flow = spec.leakFlowMaxCm3PerMin;
    limits.push(
      atMost(
        'leak-flow',
        limitFrom(
          { field: 'leakFlowMaxCm3PerMin', value: flow === undefined ? undefined : (flow * 1e-6) / 60 },
          { key: 'supplyLeakFlow', value: context.workshopLimits.supplyLeakFlow },
        ),
        { expected: 0 },
      ),
    );
    return limits;
  },
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'pump_on'] }],
};

const demand: Measured = {
  id: 'demand',
  kind: 'measured',
  title: 'Demand of a stroke',
  why: 'What one stroke costs: a booster that leaks while applied, or takes too much air, shows here.',
  minutes: 2,
  cautions: ['running-engine'],
  optional: true,
  characteristics: ['vacuum-per-application'],
  feeds: {
    log: {
      needs: ['supply_vacuum', pedal],
      uses: ['pump_on'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'evacuated',
      guide: () => [wait({ code: 'rest', seconds: 2 }, off, 2), ...stroke(1, off), ...stroke(2, off)],
      bands: () => ({}),
    },
  },
  analyse: analyseDemand,
  limits: (_analysis, context): Limit[] => {
    const most = context.unit.spec.vacuumPerApplicationMaxKpa;
    return most === undefined
      ? []
      : [
          atMost('vacuum-per-application', {
            value: most * 1e3,
            source: { kind: 'sheet', field: 'vacuumPerApplicationMaxKpa' },
          }),
        ];
  },
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', pedal] }],
};

const checkSeconds = 15;

const checkValve: Measured = {
  id: 'check-valve',
  kind: 'measured',
  title: 'Check valve',
  why: 'It passes one way only: with the source side shut, then open to the air, the loss must not change.',
  minutes: 2,
  cautions: ['stored-vacuum'],
  optional: false,
  characteristics: ['reverse-leak'],
  feeds: {
    log: {
      needs: ['supply_vacuum'],
      uses: ['source_vacuum', 'pump_on'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'evacuated',
      guide: () => [
        wait({ code: 'rest', seconds: 1 }, { isolated: 1 }, 1),
        heldWait({ code: 'stop-engine-clamped', seconds: checkSeconds }, { isolated: 1 }, checkSeconds),
        heldWait({ code: 'open-clamp', seconds: checkSeconds }, off, checkSeconds),
      ],
      bands: () => ({}),
    },
  },
  analyse: (trace, context) => analyseCheckValve(trace, context, checkSeconds),
  limits: (_analysis, { unit: { spec }, workshopLimits }) => [
    atMost(
      'reverse-leak',
      limitFrom(
        {
          field: 'reverseLeakMaxKpa',
          value: spec.reverseLeakMaxKpa === undefined ? undefined : spec.reverseLeakMaxKpa * 1e3,
        },
        { key: 'reverseLeak', value: workshopLimits.reverseLeak },
      ),
      { expected: 0 },
    ),
  ],
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'source_vacuum'] }],
};

export const vacuumSupplySteps: readonly StepDefinition<VacuumSupplyUnit>[] = [
  lookOver,
  sourceVacuum,
  pumpDown,
  pumpSwitch,
  restLeak,
  demand,
  checkValve,
];

/** Vacuum of a sound source at a time of its pump-down, lowest and highest, Pa. */
export function pumpDownBand(
  unit: VacuumSupplyUnit,
  time: number,
  settled: number,
  limits: Context['workshopLimits'],
): readonly [number, number] {
  const slower = { ...unit, speed: unit.speed * (1 - limits.pumpSpeedTolerance) };
  const faster = { ...unit, speed: unit.speed * (1 + limits.pumpSpeedTolerance) };
  return [pumpDownVacuum(slower, time, settled * 0.97), pumpDownVacuum(faster, time, settled * 1.02)];
}
