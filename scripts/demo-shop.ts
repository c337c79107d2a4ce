import dayjs from 'dayjs';
import { kindNamed, kindOfSheet, findStep } from '@/core/families';
import { planOf, type AnyKind } from '@/core/contract/kind';
import type { ActiveFault } from '@/core/physics/plant';
import type { PlanId } from '@/core/procedure/step-context';
import type { StepDefinition } from '@/core/procedure/step-definition';
import { prechargeTemperature, restatePrecharge } from '@/core/physics/gas-law';
import { restateSphereReading } from '@/core/toolboxes/store/model/sphere-check';
import { contextAt, instrumentFromSite, type Site } from '@/core/formats/site-file';
import { ambientFrom } from '@/core/quantities/standard-atmosphere';
import { drawGaugeErrors, readGauge } from '@/core/rig/stand-in-gauge';
import { checkKind } from '@/core/formats/unit-sheet';
import { labelledSeed, randomSource } from '@/core/physics/random';
import { writtenKey } from '@/core/procedure/look-step';
import { storedFaults, storedFaultsText } from '@/core/rig/scan-tool';
import { readStandIn, simulateStep } from '@/core/rig/run-step';
import { instantOf } from '@/core/wording/shop-time';
import { database } from '@/data/database';
import { acknowledgeCaution, insertJob, type Place } from '@/data/jobs';
import { appendChunk, insertRun, listRuns, setRunState } from '@/data/runs';
import { writeShopSettings } from '@/data/settings';
import { insertSphere, insertSphereCheck, markFitted } from '@/data/spheres';
import { insertSheet, listSheets } from '@/data/unit-sheets';
import { mendedFaults, type PartWork } from '@/core/judging/verification';
import { insertRepair } from '@/data/repairs';
import { judgedJob } from '@/server/judging/judged-job';
import { floorView } from '@/server/views/floor-view';
import { sliceTrace, type Trace } from '@/core/traces/trace';

/*
 * The demo shop: Vennholm Alpine Transit, 1,420 m above the sea. Every trace is made by the stand-in rig from a
 * named fault and a named seed; nothing is typed in.
 */

const site: Site = { timeZone: 'Europe/Vienna', altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 620 };

const people = [
  ['ilse', 'Ilse Varga', 'bench lead'],
  ['tomas', 'Tomas Rehn', 'technician'],
  ['noor', 'Noor Halabi', 'technician'],
  ['piet', 'Piet Oduya', 'apprentice'],
] as const;

const instruments: NonNullable<Site['instruments']> = [
  {
    channel: 'input_pressure',
    name: 'Set B input transducer, 16 MPa',
    range: 16000,
    resolution: 1,
    unit: 'kPa',
    classPercent: 0.5,
    classOf: 'reading',
    calibratedOn: '2026-03-12',
    dueOn: '2027-03-12',
  },
  {
    channel: 'output_pressure',
    name: 'Set B output transducer, 16 MPa',
    range: 16000,
    resolution: 1,
    unit: 'kPa',
    classPercent: 0.5,
    classOf: 'reading',
    calibratedOn: '2026-03-12',
    dueOn: '2027-03-12',
  },
  {
    // The same transducer, screwed into the port of a parking brake.
    channel: 'parking_pressure',
    name: 'Set B output transducer, 16 MPa',
    range: 16000,
    resolution: 1,
    unit: 'kPa',
    classPercent: 0.5,
    classOf: 'reading',
    calibratedOn: '2026-03-12',
    dueOn: '2027-03-12',
  },
  {
    channel: 'tape_height',
    name: 'Steel tape, 2 m',
    range: 2000,
    resolution: 0.5,
    unit: 'mm',
    classPercent: 0.05,
    classOf: 'full-scale',
    calibratedOn: '2026-01-15',
    dueOn: '2028-01-15',
  },
  {
    channel: 'supply_vacuum',
    name: 'Set B supply vacuum transducer',
    range: 100,
    resolution: 0.01,
    unit: 'kPa',
    classPercent: 0.5,
    classOf: 'full-scale',
    calibratedOn: '2026-03-12',
    dueOn: '2027-03-12',
  },
  {
    channel: 'control_vacuum',
    name: 'Set B control vacuum transducer',
    range: 100,
    resolution: 0.01,
    unit: 'kPa',
    classPercent: 0.5,
    classOf: 'full-scale',
    calibratedOn: '2026-03-12',
    dueOn: '2027-03-12',
  },
  {
    channel: 'accumulator_pressure',
    name: 'Store and charging tool transducer, 25 MPa',
    range: 25000,
    resolution: 2,
    unit: 'kPa',
    classPercent: 0.5,
    classOf: 'reading',
    calibratedOn: '2026-04-09',
    dueOn: '2027-04-09',
  },
  {
    channel: 'rod_force',
    name: 'Rod load cell, 10 kN',
    range: 10000,
    resolution: 1,
    unit: 'N',
    classPercent: 0.5,
    classOf: 'reading',
    calibratedOn: '2026-05-20',
    dueOn: '2027-05-20',
  },
  {
    channel: 'pedal_force',
    name: 'Pedal load cell, 1 kN',
    range: 1000,
    resolution: 1,
    unit: 'N',
    classPercent: 1,
    classOf: 'reading',
    calibratedOn: '2025-08-04',
    dueOn: '2026-08-04',
  },
  {
    channel: 'rod_travel',
    name: 'Depth gauge, 200 mm',
    range: 200,
    resolution: 0.05,
    unit: 'mm',
    classPercent: 0.02,
    classOf: 'full-scale',
    calibratedOn: '2026-01-15',
    dueOn: '2027-01-15',
  },
  {
    channel: 'pedal_travel',
    name: 'Pedal travel gauge, 200 mm',
    range: 200,
    resolution: 0.1,
    unit: 'mm',
    classPercent: 0.2,
    classOf: 'full-scale',
    calibratedOn: '2026-05-20',
    dueOn: '2027-05-20',
  },
];

const remote = kindNamed('vacuum-remote');
const inline = kindNamed('vacuum-inline');
const supply = kindNamed('vacuum-supply');
const hydraulic = kindNamed('hydraulic-boost');
const motorPump = kindNamed('motor-pump-boost');
const motorBooster = kindNamed('motor-boost');
const plungerUnit = kindNamed('brake-by-wire', 'plunger');
const storeUnit = kindNamed('brake-by-wire', 'accumulator');
const blended = kindNamed('blended-braking');
const behindIt = kindNamed('foundation');
const stored = kindNamed('stored-pressure');
const valve = kindNamed('pedal-valve');

const sheets = [
  { id: 'tarnock-r7', kind: remote, name: remote.sheet.example.name, spec: remote.sheet.example.spec as object },
  {
    id: 'ullerby-82',
    kind: remote,
    name: 'Ullerby 82',
    spec: {
      powerPistonDiameterMm: 152,
      slaveBoreMm: 19.05,
      pushRodDiameterMm: 8,
      cutInPressureKpa: 250,
      controlAreaRatio: 0.035,
      hysteresisKpa: 90,
      ratedVacuumKpa: 60,
      referenceInputKpa: 1600,
      shellVolumeCm3: 2300,
      appliedVolumeCm3: 900,
    },
  },
  {
    id: 'ostvale-frame-254',
    kind: remote,
    name: 'Ostvale Works frame unit 254',
    spec: {
      powerPistonDiameterMm: 254,
      slaveBoreMm: 34.9,
      pushRodDiameterMm: 13,
      cutInPressureKpa: 450,
      controlAreaRatio: 0.045,
      returnSpringForceN: 260,
      hysteresisKpa: 150,
      ratedVacuumKpa: 60,
      referenceInputKpa: 1700,
      shellVolumeCm3: 8200,
      appliedVolumeCm3: 3100,
    },
  },
  {
    id: 'tarnock-s11',
    kind: remote,
    name: 'Tarnock S11',
    spec: {
      layout: 'servo-cylinder',
      powerPistonDiameterMm: 203,
      cutInPressureKpa: 420,
      controlAreaRatio: 0.036,
      returnSpringForceN: 210,
      hysteresisKpa: 130,
      ratedVacuumKpa: 60,
      referenceInputKpa: 1800,
      shellVolumeCm3: 4600,
      appliedVolumeCm3: 1900,
      reservoirVolumeCm3: 9000,
      switchCloseMinKpa: 250,
      switchCloseMaxKpa: 600,
    },
  },
  {
    id: 'ullerby-hb70',
    kind: hydraulic,
    name: hydraulic.sheet.example.name,
    spec: hydraulic.sheet.example.spec as object,
  },
  {
    id: 'tarnock-m18',
    kind: motorPump,
    name: motorPump.sheet.example.name,
    spec: motorPump.sheet.example.spec as object,
  },
  {
    id: 'ostvale-mb3',
    kind: motorBooster,
    name: motorBooster.sheet.example.name,
    spec: motorBooster.sheet.example.spec as object,
  },
  {
    id: 'minibus-foundation',
    kind: behindIt,
    name: behindIt.sheet.example.name,
    spec: behindIt.sheet.example.spec as object,
  },
  {
    id: 'mail-van-foundation',
    kind: behindIt,
    name: 'Tarnock mail van',
    spec: {
      category: 'light',
      masterBoreMm: 22.2,
      pedalRatio: 4.2,
      splitPressureKpa: 3000,
      rearSlope: 0.35,
      frictionCoefficientFront: 0.4,
      pistonAreaFrontMm2: 2040,
      effectiveRadiusFrontMm: 110,
      drumFactorRear: 0.11,
      tyreRadiusMm: 295,
      massKg: 1750,
      stopLampKind: 'plunger',
      stopLampTravelMinMm: 3,
      stopLampTravelMaxMm: 14,
    },
  },
  {
    id: 'grader-foundation',
    kind: behindIt,
    name: 'Ostvale Works grader',
    spec: {
      category: 'own',
      ownSpeedKmh: 40,
      ownDecelerationMinMPerS2: 2.2,
      ownDistanceA: 0.15,
      ownDistanceB: 0.0175,
      ownPedalForceMaxN: 700,
      ownSource: 'Workshop’s own figures after the maker’s manual of the grader',
      masterBoreMm: 31.8,
      pedalRatio: 6,
      frictionCoefficientFront: 0.36,
      pistonAreaFrontMm2: 5200,
      effectiveRadiusFrontMm: 160,
      frictionCoefficientRear: 0.36,
      pistonAreaRearMm2: 5200,
      effectiveRadiusRearMm: 160,
      tyreRadiusMm: 560,
      massKg: 7800,
      fluid: 'mineral',
      bleedOrder: 'by-circuit',
    },
  },
  {
    id: 'tarnock-hv6',
    kind: blended,
    name: blended.sheet.example.name,
    spec: blended.sheet.example.spec as object,
  },
  {
    id: 'ullerby-w6',
    kind: plungerUnit,
    name: plungerUnit.sheet.example.name,
    spec: plungerUnit.sheet.example.spec as object,
  },
  {
    id: 'tarnock-w9',
    kind: storeUnit,
    name: storeUnit.sheet.example.name,
    spec: storeUnit.sheet.example.spec as object,
  },
  { id: 'ullerby-glacier', kind: stored, name: stored.sheet.example.name, spec: stored.sheet.example.spec as object },
  { id: 'ostvale-dv2', kind: valve, name: valve.sheet.example.name, spec: valve.sheet.example.spec as object },
  { id: 'ostvale-e4', kind: supply, name: supply.sheet.example.name, spec: supply.sheet.example.spec as object },
  { id: 'ullerby-p25', kind: inline, name: inline.sheet.example.name, spec: inline.sheet.example.spec as object },
  {
    id: 'tarnock-t10-tandem',
    kind: inline,
    name: 'Tarnock T10 tandem',
    spec: {
      diaphragmDiameterMm: 228,
      diaphragms: 2,
      hubDiameterMm: 52,
      servoRatio: 6.5,
      cutInForceN: 120,
      jumpInForceN: 520,
      returnSpringForceN: 150,
      hysteresisN: 35,
      ratedVacuumKpa: 60,
      frontVolumeCm3: 5600,
      rearVolumeCm3: 2300,
      strokeMm: 38,
      masterBoreMm: 28.6,
      pedalRatio: 3.6,
      appliedTravelMm: 10,
      sourceKind: 'pump',
      rodGapMinMm: 0.2,
      rodGapMaxMm: 0.8,
    },
  },
] as const;

interface DemoJob {
  readonly id: string;
  readonly sheet: (typeof sheets)[number]['id'];
  readonly serial: string;
  readonly vehicle: string;
  readonly complaint: string;
  /** Of the list of its kind. */
  readonly symptoms?: readonly string[];
  readonly place: Place;
  readonly person: string;
  readonly plan?: PlanId;
  readonly seed: number;
  readonly pairError: number;
  readonly faults: readonly ActiveFault[];
  /** Hours before now at which the first step was run. */
  readonly hoursAgo: number;
  /** Steps that have been run, from the first on. */
  readonly steps: number;
  /** Job whose unit it looks behind. */
  readonly behindOf?: string;
  /** Of a vehicle that only a log of a drive tells of: the log's name, and so many times as long as an ordinary one. */
  readonly drive?: { readonly file: string; readonly long: number };
  /** What was done to it then, and how many of the steps that are due since have been run. */
  readonly repair?: { readonly work: readonly PartWork[]; readonly note: string; readonly again: number };
}

const jobs: readonly DemoJob[] = [
  {
    id: 'job-tk-2207-118-before',
    sheet: 'tarnock-r7',
    serial: 'TK-2207-118',
    vehicle: 'Touring bus “Sorrel”, 1958',
    complaint: 'Comes on late, and lets go late',
    symptoms: ['late'],
    place: 'gone',
    person: 'Noor Halabi',
    seed: 2207117,
    pairError: 0.01,
    faults: [{ id: 'control-piston-sticking', severity: 0.5 }],
    hoursAgo: 24 * 41,
    steps: 11,
  },
  {
    id: 'job-tk-2207-118',
    sheet: 'tarnock-r7',
    serial: 'TK-2207-118',
    vehicle: 'Touring bus “Sorrel”, 1958',
    complaint: 'Retest after new control piston',
    place: 'on-bench',
    person: 'Tomas Rehn',
    seed: 2207118,
    pairError: -0.012,
    faults: [],
    hoursAgo: 3,
    steps: 11,
  },
  {
    id: 'job-ow-254-009',
    sheet: 'ostvale-frame-254',
    serial: 'OW-254-009',
    vehicle: 'Salt lorry 3',
    complaint: 'Pedal hard on the second application, hiss while held',
    symptoms: ['second-stroke-hard', 'hiss-held'],
    place: 'on-bench',
    person: 'Noor Halabi',
    seed: 254009,
    pairError: 0.008,
    faults: [{ id: 'vacuum-valve-leak', severity: 0.35 }],
    hoursAgo: 20,
    steps: 9,
  },
  {
    id: 'job-ul-82-0340',
    sheet: 'ullerby-82',
    serial: 'UL-82-0340',
    vehicle: 'Mail van 12',
    complaint: 'Brakes come on late and all at once',
    symptoms: ['late'],
    place: 'waiting-parts',
    person: 'Tomas Rehn',
    seed: 820340,
    pairError: 0.015,
    faults: [{ id: 'control-piston-sticking', severity: 0.6 }],
    hoursAgo: 28,
    steps: 11,
  },
  {
    id: 'job-ul-82-0352',
    sheet: 'ullerby-82',
    serial: 'UL-82-0352',
    vehicle: 'Mail van 7',
    complaint: 'Nothing at first, then too much',
    symptoms: ['late'],
    place: 'waiting-parts',
    person: 'Noor Halabi',
    seed: 820352,
    pairError: 0.006,
    faults: [{ id: 'control-piston-sticking', severity: 0.7 }],
    hoursAgo: 31,
    steps: 11,
  },
  {
    id: 'job-ow-254-012',
    sheet: 'ostvale-frame-254',
    serial: 'OW-254-012',
    vehicle: 'Salt lorry 2',
    complaint: 'Hiss as long as the pedal is held, weak on the second stroke',
    symptoms: ['hiss-held'],
    place: 'on-bench',
    person: 'Tomas Rehn',
    seed: 254012,
    pairError: 0.004,
    faults: [{ id: 'vacuum-valve-leak', severity: 0.5 }],
    hoursAgo: 6,
    steps: 11,
    repair: {
      work: [{ part: 'control-valve', action: 'replaced', with: 'valve set OW-K7' }],
      note: 'Seat of the old one scored on one side.',
      again: 4,
    },
  },
  {
    id: 'job-tk-s11-044',
    sheet: 'tarnock-s11',
    serial: 'TK-S11-044',
    vehicle: 'Grader 2',
    complaint: 'Brakes stay on a little after a stop, lever slow to come back',
    place: 'on-bench',
    person: 'Noor Halabi',
    seed: 11044,
    pairError: 0,
    faults: [{ id: 'power-piston-friction', severity: 0.4 }],
    hoursAgo: 4,
    steps: 11,
  },
  {
    id: 'job-ul-25-0771',
    sheet: 'ullerby-p25',
    serial: 'UL-25-0771',
    vehicle: 'Crew minibus 4',
    complaint: 'Hard pedal in the morning, good once driven',
    place: 'on-bench',
    person: 'Noor Halabi',
    plan: 'vehicle',
    seed: 250771,
    pairError: 0,
    faults: [{ id: 'check-valve-leak', severity: 0.12 }],
    hoursAgo: 5,
    steps: 5,
  },
  {
    id: 'job-tk-t10-052',
    sheet: 'tarnock-t10-tandem',
    serial: 'TK-T10-052',
    vehicle: 'Snow-blower loader',
    complaint: 'Overhauled, to be proved before it goes back',
    place: 'on-bench',
    person: 'Tomas Rehn',
    plan: 'bench',
    seed: 10052,
    pairError: 0,
    faults: [],
    hoursAgo: 2,
    steps: 8,
  },
  {
    id: 'job-ow-e4-311',
    sheet: 'ostvale-e4',
    serial: 'OW-E4-311',
    vehicle: 'Electric parcel van 2',
    complaint: 'Pump is heard all the time',
    place: 'on-bench',
    person: 'Noor Halabi',
    plan: 'vehicle',
    seed: 4311,
    pairError: 0,
    faults: [{ id: 'pump-worn', severity: 0.4 }],
    hoursAgo: 6,
    steps: 4,
  },
  {
    id: 'job-tk-m18-204',
    sheet: 'tarnock-m18',
    serial: 'TK-M18-204',
    vehicle: 'Hybrid valley shuttle 3',
    complaint: 'Pump starts every minute with nobody on the pedal',
    place: 'on-bench',
    person: 'Tomas Rehn',
    seed: 18204,
    pairError: 0,
    faults: [{ id: 'internal-leak', severity: 0.3 }],
    hoursAgo: 7,
    steps: 7,
  },
  {
    id: 'job-tk-m18-161',
    sheet: 'tarnock-m18',
    serial: 'TK-M18-161',
    vehicle: 'Hybrid valley shuttle 1',
    complaint: 'Red lamp on the second stroke at a cold start',
    place: 'on-bench',
    person: 'Noor Halabi',
    seed: 18161,
    pairError: 0,
    faults: [{ id: 'accumulator-precharge-low', severity: 0.3 }],
    hoursAgo: 26,
    steps: 5,
  },
  {
    id: 'job-ow-mb3-017',
    sheet: 'ostvale-mb3',
    serial: 'OW-MB3-017',
    vehicle: 'Electric parcel van 2',
    complaint: 'Assist fades in a long stop, a ground code comes back',
    symptoms: ['assist-fades', 'lamp'],
    place: 'on-bench',
    person: 'Noor Halabi',
    seed: 3017,
    pairError: 0,
    faults: [{ id: 'ground-resistance', severity: 0.4 }],
    hoursAgo: 3,
    steps: 6,
  },
  {
    id: 'job-ul-w6-021',
    sheet: 'ullerby-w6',
    serial: 'UL-W6-021',
    vehicle: 'Electric people mover 1',
    complaint: 'Pulls to the right at every stop',
    symptoms: ['pulls'],
    place: 'on-bench',
    person: 'Tomas Rehn',
    seed: 6021,
    pairError: 0,
    faults: [{ id: 'outlet-valve-leak', severity: 0.3 }],
    hoursAgo: 5,
    steps: 10,
  },
  {
    id: 'job-tk-w9-004',
    sheet: 'tarnock-w9',
    serial: 'TK-W9-004',
    vehicle: 'Hybrid valley shuttle 3',
    complaint: 'Amber lamp after a week in the yard',
    symptoms: ['lamp-amber'],
    place: 'on-bench',
    person: 'Noor Halabi',
    seed: 9004,
    pairError: 0,
    faults: [{ id: 'backup-capacitor-weak', severity: 0.35 }],
    hoursAgo: 6,
    steps: 8,
  },
  {
    id: 'job-ul-w6-008',
    sheet: 'ullerby-w6',
    serial: 'UL-W6-008',
    vehicle: 'Electric people mover 2',
    complaint: 'Yearly test',
    place: 'on-bench',
    person: 'Ilse Varga',
    seed: 6008,
    pairError: 0,
    faults: [],
    hoursAgo: 7,
    steps: 14,
  },
  {
    id: 'job-ug-cs-007',
    sheet: 'ullerby-glacier',
    serial: 'UG-CS-007',
    vehicle: 'Glacier coach 2',
    complaint: 'Both lamps on again an hour after parking, and long to go out',
    symptoms: ['lamp-within-hours', 'lamp-long'],
    place: 'on-bench',
    person: 'Ilse Varga',
    plan: 'vehicle',
    seed: 7007,
    pairError: 0,
    faults: [{ id: 'levelling-leak', severity: 0.3 }],
    hoursAgo: 30,
    steps: 9,
  },
  {
    id: 'job-ow-dv2-031',
    sheet: 'ostvale-dv2',
    serial: 'OW-DV2-031',
    vehicle: 'Grader 1',
    complaint: 'Front axle brakes late when stamped on',
    symptoms: ['late'],
    place: 'waiting-parts',
    person: 'Tomas Rehn',
    seed: 2031,
    pairError: 0,
    faults: [{ id: 'orifice-plugged-upper', severity: 0.3 }],
    hoursAgo: 48,
    steps: 9,
  },
  {
    id: 'job-ul-mb-061',
    sheet: 'ullerby-p25',
    serial: 'UL-P25-061',
    vehicle: 'Crew minibus 4',
    complaint: 'Pedal rock hard since the rear line was mended, red lamp on',
    symptoms: ['hard-pedal'],
    place: 'on-bench',
    person: 'Tomas Rehn',
    plan: 'vehicle',
    seed: 2561,
    pairError: 0,
    faults: [],
    hoursAgo: 12,
    steps: 8,
  },
  {
    id: 'job-ul-mb-061-behind',
    sheet: 'minibus-foundation',
    serial: 'UL-P25-061',
    vehicle: 'Crew minibus 4',
    complaint: 'Pedal rock hard since the rear line was mended, red lamp on',
    symptoms: ['hard-pedal', 'red-lamp'],
    place: 'on-bench',
    person: 'Tomas Rehn',
    plan: 'vehicle',
    seed: 2562,
    pairError: 0,
    faults: [{ id: 'combination-valve-shuttled', severity: 0.6 }],
    hoursAgo: 9,
    steps: 6,
    behindOf: 'job-ul-mb-061',
  },
  {
    id: 'job-tk-mv-017',
    sheet: 'mail-van-foundation',
    serial: 'TK-MV-017',
    vehicle: 'Mail van 3',
    complaint: 'Stop lamps stay on',
    symptoms: ['stop-lamps'],
    place: 'on-bench',
    person: 'Noor Halabi',
    plan: 'vehicle',
    seed: 3017,
    pairError: 0,
    faults: [{ id: 'stop-switch-misadjusted', severity: 0.2 }],
    hoursAgo: 6,
    steps: 8,
  },
  {
    id: 'job-ow-gr-009',
    sheet: 'grader-foundation',
    serial: 'OW-GR-009',
    vehicle: 'Grader 2',
    complaint: 'Hand lever stiff, left rear warm after the run',
    symptoms: ['parking'],
    place: 'waiting-parts',
    person: 'Tomas Rehn',
    plan: 'vehicle',
    seed: 5009,
    pairError: 0,
    faults: [{ id: 'parking-cable-seized', severity: 1 }],
    hoursAgo: 52,
    steps: 12,
  },
  {
    id: 'job-tk-hv-302',
    sheet: 'tarnock-hv6',
    serial: 'TK-HV-302',
    vehicle: 'Valley shuttle 2',
    complaint: 'Lurches when coming to a stop at the platform',
    symptoms: ['lurch'],
    place: 'on-bench',
    person: 'Noor Halabi',
    plan: 'vehicle',
    seed: 6302,
    pairError: 0,
    faults: [{ id: 'handover-dip', severity: 0.4 }],
    hoursAgo: 7,
    steps: 1,
    drive: { file: 'shuttle-2-valley-line.csv', long: 3 },
  },
  {
    id: 'job-tk-hv-305',
    sheet: 'tarnock-hv6',
    serial: 'TK-HV-305',
    vehicle: 'Valley shuttle 5',
    complaint: 'Stops later at the foot of the pass, full battery',
    symptoms: ['longer-after-descent'],
    place: 'waiting',
    person: 'Tomas Rehn',
    plan: 'vehicle',
    seed: 6305,
    pairError: 0,
    faults: [{ id: 'regen-shortfall-not-filled', severity: 0.6 }],
    hoursAgo: 28,
    steps: 1,
    drive: { file: 'shuttle-5-pass-descent.csv', long: 1 },
  },
  {
    id: 'job-ul-hb-115',
    sheet: 'ullerby-hb70',
    serial: 'UL-HB-115',
    vehicle: 'Salt lorry 1',
    complaint: 'Hard first stroke in the morning',
    place: 'on-bench',
    person: 'Noor Halabi',
    plan: 'vehicle',
    seed: 70115,
    pairError: 0,
    faults: [{ id: 'reserve-check-leak', severity: 0.3 }],
    hoursAgo: 9,
    steps: 7,
  },
];

/** Time from one step to the next, ms. */
const betweenSteps = 4 * 60_000;

/** Spheres of the excursion coaches, checked once or twice a year: each loses its gas at a rate of its own. */
const demoSphereLives = [
  {
    serial: 'UG-S-0412',
    purpose: 'brake',
    precharge: 6.2e6,
    fittedTo: 'Ullerby Glacier central system',
    lossPerYear: 0.016,
    checks: 6,
    seed: 412,
  },
  {
    serial: 'UG-S-0413',
    purpose: 'brake',
    precharge: 6.2e6,
    fittedTo: 'Ullerby Glacier central system',
    lossPerYear: 0.033,
    checks: 6,
    seed: 413,
  },
  {
    serial: 'UG-S-0877',
    purpose: 'suspension',
    precharge: 2.6e6,
    fittedTo: null,
    lossPerYear: 0.02,
    checks: 4,
    seed: 877,
  },
  { serial: 'UG-S-1190', purpose: 'brake', precharge: 6.2e6, fittedTo: null, lossPerYear: 0.01, checks: 1, seed: 1190 },
] as const;

/** The charging tool's gauge reads a simulated gas pressure at the temperature of the day. */
async function demoSpheres(now: Date): Promise<void> {
  const tool = instruments.find((each) => each.channel === 'accumulator_pressure');
  if (!tool) throw new Error('the demo shop has no gauge for its charging tool');
  const instrument = instrumentFromSite(tool);
  const { pressure: ambient } = ambientFrom({ altitude: site.altitudeM, barometer: undefined });
  for (const life of demoSphereLives) {
    const { serial, purpose, precharge, checks, lossPerYear, seed } = life;
    await insertSphere({ serial, purpose, fluid: 'mineral', precharge });
    if (life.fittedTo) await markFitted(serial, life.fittedTo);
    const random = randomSource(labelledSeed(seed, serial));
    for (let at = 0; at < checks; at++) {
      const years = (checks - at) * 0.55 - 0.1;
      const temperature = 293.15 + 6 * random.normal();
      const truth = precharge * Math.exp(-lossPerYear * (3.4 - years));
      const there = restatePrecharge(truth, prechargeTemperature, temperature + 0.8 * random.normal(), ambient);
      const reading = readGauge(there, instrument, drawGaugeErrors(instrument, seed, 0), random);
      const day = dayjs(now)
        .subtract(Math.round(years * 365), 'day')
        .toISOString();
      await insertSphereCheck({
        serial,
        at: day,
        reading,
        temperature,
        ...restateSphereReading({
          reading,
          temperature,
          ambient,
          instruments: new Map([[instrument.channel, instrument]]),
          at: now.toISOString(),
        }),
        person: 'Tomas Rehn',
      });
    }
  }
}

function sheetNamed(id: string): { readonly kind: AnyKind; readonly name: string; readonly spec: object } {
  const sheet = sheets.find((each) => each.id === id);
  if (!sheet) throw new Error(`the demo shop has no sheet ${id}`);
  return { ...sheet, kind: kindOfSheet({ family: sheet.kind.family, spec: sheet.spec }) ?? sheet.kind };
}

/** Chunks as the recorder would have written them: a second each. */
function secondsOf(trace: Trace): Trace[] {
  const chunks: Trace[] = [];
  for (let from = 0; from < trace.time.length; from += 200)
    chunks.push(sliceTrace(trace, from, Math.min(trace.time.length, from + 200)));
  return chunks;
}

/** Does one step of a job as it was done then; returns how long it took, s. */
async function runStep(job: DemoJob, jobId: string, step: StepDefinition<unknown>, at: Date): Promise<number> {
  const { kind, spec } = sheetNamed(job.sheet);
  const startedAt = at.toISOString();
  const common = { jobId, step: step.id, person: job.person, startedAt };
  for (const caution of step.cautions) await acknowledgeCaution(jobId, caution, job.person, startedAt);
  if (step.kind === 'look') {
    const appearance = Object.assign(
      {},
      ...kind.model.faults
        .filter((fault) => job.faults.some((active) => active.id === fault.id))
        .map((fault) => fault.appearance),
    ) as Record<string, string>;
    const findings = Object.fromEntries(
      step.feeds.look.points.map((point) => [point.id, appearance[point.id] ?? step.feeds.look.options[0].id]),
    );
    const codes = storedFaultsText(storedFaults(kind, job.faults));
    const written = step.feeds.look.points.filter(({ writes }) => writes && codes !== '');
    await insertRun({
      ...common,
      state: 'kept',
      context: { site: { ...site, instruments }, source: 'looked at' },
      findings: { ...findings, ...Object.fromEntries(written.map(({ id }) => [writtenKey(id), codes])) },
    });
    return 0;
  }
  const checked = checkKind(kind, job.sheet, spec, 'demo');
  if (!checked.ok) throw new Error(`the demo sheet ${job.sheet} is not valid`);
  const context = contextAt(checked.value, { ...site, instruments }, startedAt, job.plan);
  if (step.kind === 'typed') {
    const readings = readStandIn(kind, step, context, { faults: job.faults, seed: job.seed });
    await insertRun({
      ...common,
      state: 'kept',
      context: { site: { ...site, instruments }, source: 'dial readings', standIn: true },
      readings,
    });
    return 0;
  }
  const trace = simulateStep(kind, step, context, {
    faults: job.faults,
    benchSeed: job.seed,
    runSeed: job.seed,
    pairError: job.pairError,
    long: job.drive?.long,
  });
  const recorded = { ...site, instruments };
  const id = await insertRun({
    ...common,
    state: 'recording',
    context: job.drive
      ? { site: recorded, source: 'log file', file: { name: job.drive.file, leftOut: [] }, standIn: true }
      : { site: recorded, source: 'stand-in rig' },
  });
  for (const [sequence, chunk] of secondsOf(trace).entries()) await appendChunk(id, sequence, chunk, null);
  const seconds = trace.time[trace.time.length - 1];
  await setRunState(id, 'kept', new Date(at.getTime() + seconds * 1000).toISOString());
  return seconds;
}

/** Puts a repair on record, and does again the first of the steps that are due since, with what was mended mended. */
async function repairAndProve(job: DemoJob, repair: NonNullable<DemoJob['repair']>, repairedAt: Date): Promise<void> {
  const { kind } = sheetNamed(job.sheet);
  const { work, note, again } = repair;
  const afterRun = (await listRuns(job.id)).at(-1)?.sequence ?? 0;
  await insertRepair({ jobId: job.id, at: repairedAt.toISOString(), person: job.person, work, note, afterRun });
  const { due } = (await judgedJob(job.id)).evaluated;
  const mended = mendedFaults(kind, work);
  const repaired = { ...job, seed: job.seed + 1, faults: job.faults.filter((fault) => !mended.includes(fault.id)) };
  let at = repairedAt.getTime() + betweenSteps;
  for (const { step: id } of due.slice(0, again)) {
    const step = findStep(kind, id);
    if (step) at += betweenSteps + 1000 * (await runStep(repaired, job.id, step, new Date(at)));
  }
}

/** Fills an empty database with the demo shop; returns false when a shop is there already. */
export async function demoShop(now = new Date()): Promise<boolean> {
  const db = await database();
  if ((await listSheets()).length > 0) return false;
  await writeShopSettings({ shopName: 'Vennholm bench', site, policy: 'guarded' });
  for (const [id, name, role] of people) await db('people').insert({ id, name, role });
  for (const instrument of instruments)
    await db('instruments').insert({
      id: instrument.channel,
      set_name: 'Set B',
      instrument: JSON.stringify(instrument),
    });
  for (const sheet of sheets) {
    const { kind } = sheetNamed(sheet.id);
    const checked = checkKind(kind, sheet.name, sheet.spec, 'demo');
    if (!checked.ok) throw new Error(`the demo sheet ${sheet.id} is not valid: ${JSON.stringify(checked.problems)}`);
    await insertSheet({ family: sheet.kind.family, name: sheet.name, spec: checked.value.spec }, sheet.id);
  }
  for (const job of jobs) {
    const sheet = sheetNamed(job.sheet);
    const { kind } = sheet;
    const checked = checkKind(kind, job.sheet, sheet.spec, 'demo');
    if (!checked.ok) throw new Error(`job ${job.id} has no valid sheet`);
    const begun = now.getTime() - job.hoursAgo * 3_600_000;
    await insertJob(
      {
        serial: job.serial,
        vehicle: job.vehicle,
        complaint: job.complaint,
        symptoms: job.symptoms ?? [],
        place: job.place,
        bookedAt: new Date(begun - 3_600_000).toISOString(),
        bookedBy: 'Ilse Varga',
        promisedAt: instantOf(`${dayjs(now).add(1, 'day').format('YYYY-MM-DD')}T15:00`, 'Europe/Vienna'),
        plan: job.plan ?? 'bench',
        sheet: { family: kind.family, name: sheet.name, spec: checked.value.spec },
        behindOf: job.behindOf ?? null,
      },
      { seed: job.seed, pairError: job.pairError, faults: [...job.faults] },
      job.id,
    );
    let at = begun;
    for (const id of planOf(kind, job.plan ?? 'bench').steps.slice(0, job.steps)) {
      const step = findStep(kind, id);
      if (step) at += betweenSteps + 1000 * (await runStep(job, job.id, step, new Date(at)));
    }
    if (job.repair) await repairAndProve(job, job.repair, new Date(at + betweenSteps));
  }
  await demoSpheres(now);
  // Everything is judged once, so that the first look at the floor finds it kept.
  await floorView();
  return true;
}
