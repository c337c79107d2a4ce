import type { Family } from '../../contract/family';
import type { Kind } from '../../contract/kind';
import type { Plan } from '../../contract/plan';
import { wait } from '../../procedure/guide-phase';
import { goneNow, type Hazard } from '../../procedure/interlock';
import type { MeasuredStep, StepDefinition } from '../../procedure/step-definition';
import { storeSteps } from '../../toolboxes/store/steps/store-steps';
import { backup } from './backup-step';
import { byWireBench } from './bench-stand';
import { fallback } from './fallback-step';
import type { AccumulatorCondition, ByWireCondition } from './faults';
import {
  forceForShare,
  prepareAccumulator,
  preparePlunger,
  type AccumulatorUnit,
  type ByWireUnit,
  type PlungerUnit,
} from './geometry';
import { isolationHold } from './isolation-step';
import { faultCodes, handsLook } from './look-steps';
import { bankDead, makeSafeAfter, makeSafeBefore } from './make-safe-steps';
import { accumulatorModel, plungerModel } from './model';
import { accumulatorParts, byWirePrevalence, byWireSymptoms, plungerParts } from './parts-and-symptoms';
import { panic } from './quick-press-step';
import { release } from './release-step';
import { byWireRows } from './rows';
import { sensorPlaces } from './sensors';
import {
  accumulatorFields,
  accumulatorSchema,
  plungerFields,
  plungerSchema,
  type AccumulatorSpec,
  type PlungerSpec,
} from './sheet';
import { simulatorCurve } from './simulator-step';
import { electricHazards, keyOn, lever } from './step-parts';
import { holdHardest, supplyCheck } from './supply-step';
import { tracking } from './tracking-step';
import { sensorTransfer } from './transfer-step';
import { byWireDiagram } from './diagram';

const family = 'brake-by-wire';

function benchPlan<Unit extends ByWireUnit>(steps: readonly StepDefinition<Unit>[]): Plan<Unit> {
  return {
    id: 'bench',
    title: 'Bench test',
    steps: steps.map((step) => step.id),
    ...byWireBench,
    face: 'simulator-curve',
    closing: [
      'isolation-hold',
      'fault-codes',
      ...steps.flatMap(({ id, proves }) => (proves && id.endsWith('-after') ? [id] : [])),
    ],
    conclusions: [],
  };
}

const wheelSensors = sensorPlaces.filter((place) => place !== 'store');

const plungerSteps: readonly StepDefinition<PlungerUnit>[] = [
  makeSafeBefore,
  handsLook,
  faultCodes,
  supplyCheck<PlungerUnit>(holdHardest),
  bankDead,
  backup,
  sensorTransfer(wheelSensors),
  simulatorCurve,
  tracking,
  isolationHold(true),
  fallback,
  panic,
  release,
  makeSafeAfter,
];

const store = storeSteps<AccumulatorUnit>({
  circuits: [
    {
      suffix: '',
      place: '',
      title: 'Store',
      pressure: 'accumulator_pressure',
      pump: 'pump_on',
      lamp: 'lamp_red',
      storeOf: (unit) => unit.store,
    },
  ],
  lever,
  strokeLevel: ({ unit }) => forceForShare(unit, 1),
  live: keyOn,
  driven: 'motor',
  cautions: ['wakes-by-itself'],
  emptiedBy: 'bleed',
  alarm: 'lamp-pressure',
});

const stored: readonly Hazard[] = [...electricHazards, 'pressure'];

/** A step of a unit with a store: proved asleep, discharged and dead before; awake, its pump has charged it again. */
function charging(step: MeasuredStep<AccumulatorUnit>): MeasuredStep<AccumulatorUnit> {
  const now = step.interlock?.kind === 'gone' ? step.interlock.now : [];
  const once = stored.filter((hazard) => !now.includes(hazard));
  return { ...step, interlock: { kind: 'gone', once, now }, ...(step.id === 'fallback' ? {} : { brings: stored }) };
}

/** Putting it to sleep wakes it first: its pump has run. */
const putToSleep = (step: MeasuredStep<AccumulatorUnit>): MeasuredStep<AccumulatorUnit> => ({
  ...step,
  brings: ['pressure'],
});

const { untilStarted } = store;

const accumulatorSteps: readonly StepDefinition<AccumulatorUnit>[] = [
  putToSleep(makeSafeBefore),
  { ...store.makeDeadBefore, interlock: goneNow('motion') },
  { ...handsLook, interlock: goneNow(...stored) },
  charging(store.charge),
  { ...faultCodes, interlock: { kind: 'gone', once: stored, now: [] }, brings: stored },
  charging({
    ...supplyCheck<AccumulatorUnit>(() => []),
    feeds: {
      ...supplyCheck<AccumulatorUnit>(() => []).feeds,
      live: {
        startsFrom: 'charged',
        guide: (context) => [
          wait({ code: 'power-on-rest' }, keyOn, 2),
          ...untilStarted(context),
          wait({ code: 'shut-bleed-watch' }, keyOn, 6),
        ],
        bands: ({ unit }) => ({ ground_voltage: [0, unit.groundDropMax] }),
      },
    },
  }),
  putToSleep(bankDead),
  charging(backup),
  charging(sensorTransfer(sensorPlaces)),
  charging(simulatorCurve),
  charging(store.bleedDown),
  charging(store.pumpSwitch),
  charging(store.restCycle),
  charging(tracking),
  charging(isolationHold(false)),
  charging(fallback),
  charging(panic),
  charging(release),
  putToSleep(makeSafeAfter),
  { ...store.makeDeadAfter, interlock: goneNow('motion') },
];

const plunger: Kind<PlungerSpec, PlungerUnit, ByWireCondition> = {
  family,
  value: 'plunger',
  title: 'Decoupled unit with a plunger',
  description: 'The pedal works a feel simulator; a plunger that a motor drives makes the pressure of the wheels',
  sheet: {
    schema: plungerSchema,
    fields: plungerFields,
    example: {
      name: 'Ullerby W6',
      spec: plungerSchema.parse({
        source: 'plunger',
        plungerBoreMm: 22,
        plungerStrokeMm: 60,
        pedalRatio: 4,
        linkageEfficiency: 0.9,
        masterBoreMm: 23.8,
        simulatorStiffness1NPerMm: 2,
        simulatorStiffness2NPerMm: 8,
        simulatorChangeTravelMm: 36,
        sensorFullScaleKpa: 25_000,
        ratedCurrentA: 60,
        responseTimeConstantS: 0.045,
        fallbackPressureMinKpa: 2200,
        backupCapacitanceF: 60,
        backupVoltageFullV: 15,
        backupVoltageMinV: 9,
        energyPerStopJ: 600,
        sleepAfterS: 300,
      }),
    },
    prepare: preparePlunger,
  },
  model: plungerModel,
  parts: plungerParts,
  diagram: byWireDiagram,
  symptoms: byWireSymptoms,
  prevalence: byWirePrevalence,
  plans: [benchPlan(plungerSteps)],
  steps: plungerSteps,
  curve: simulatorCurve.pictures[0] as Kind<PlungerSpec, PlungerUnit, ByWireCondition>['curve'],
};

const accumulator: Kind<AccumulatorSpec, AccumulatorUnit, AccumulatorCondition> = {
  family,
  value: 'accumulator',
  title: 'Decoupled unit with an accumulator',
  description: 'The pedal works a feel simulator; a pump’s store makes the pressure of the wheels through their valves',
  sheet: {
    schema: accumulatorSchema,
    fields: accumulatorFields,
    example: {
      name: 'Tarnock W9',
      spec: accumulatorSchema.parse({
        source: 'accumulator',
        accumulatorVolumeCm3: 250,
        prechargeKpa: 8000,
        cutInKpa: 14_000,
        cutOutKpa: 18_000,
        lampKpa: 10_500,
        leastUsefulKpa: 9500,
        pumpFlowCm3PerS: 6,
        fluidPerApplicationCm3: 8,
        pedalRatio: 4,
        linkageEfficiency: 0.9,
        masterBoreMm: 23.8,
        simulatorStiffness1NPerMm: 2.2,
        simulatorStiffness2NPerMm: 9,
        simulatorChangeTravelMm: 34,
        sensorFullScaleKpa: 25_000,
        ratedCurrentA: 40,
        responseTimeConstantS: 0.045,
        category: 'light',
        massKg: 1600,
        tyreRadiusMm: 300,
        frictionCoefficientFront: 0.38,
        pistonAreaFrontMm2: 2290,
        effectiveRadiusFrontMm: 115,
        frictionCoefficientRear: 0.38,
        pistonAreaRearMm2: 900,
        effectiveRadiusRearMm: 110,
        backupCapacitanceF: 45,
        backupVoltageFullV: 15,
        backupVoltageMinV: 9,
        energyPerStopJ: 500,
        sleepAfterS: 300,
      }),
    },
    prepare: prepareAccumulator,
  },
  model: accumulatorModel,
  parts: accumulatorParts,
  diagram: byWireDiagram,
  symptoms: byWireSymptoms,
  prevalence: byWirePrevalence,
  plans: [benchPlan(accumulatorSteps)],
  steps: accumulatorSteps,
  curve: simulatorCurve.pictures[0] as Kind<AccumulatorSpec, AccumulatorUnit, AccumulatorCondition>['curve'],
};

/** Pedal on a simulator, wheels on another source: what shops call brake by wire, with fluid still in its lines. */
export const brakeByWire: Family = {
  id: family,
  title: 'Decoupled unit',
  description:
    'The pedal feeds a feel simulator and a second source makes the wheel pressure; “brake by wire” with hydraulics',
  toldBy: 'source',
  kinds: [plunger, accumulator],
  rows: byWireRows,
};
