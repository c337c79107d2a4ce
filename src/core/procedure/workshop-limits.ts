/**
 * Starting values that a workshop can edit; the maker's service data for the unit always wins.
 * Fractions and SI.
 */
interface SharedLimits {
  /** Boost ratio may differ from the expected one by this fraction. */
  readonly boostRatioTolerance: number;
  readonly runOutTolerance: number;
  readonly cutInTolerance: number;
  /** Hysteresis at most this many times the expected. */
  readonly hysteresisFactor: number;
  /** Control vacuum left at full activation, fraction of the supply vacuum. */
  readonly controlRemainder: number;
  readonly supplySag: number;
  /** |control − supply| at rest, Pa. */
  readonly restDifference: number;
  /** Vacuum lost (Pa) in `vacuumLossSeconds` (s). */
  readonly vacuumLoss: number;
  readonly vacuumLossSeconds: number;
  /** Output decay, fraction of the held pressure per second. */
  readonly outputDecay: number;
  /** Output left after release above the zero read before the pull, Pa. */
  readonly residual: number;
  /** Force left of a servo's full pull after release, as a fraction of it. */
  readonly residualForceShare: number;
  /** Pair error, fraction of the reading, and its floor as a fraction of the gauge's range. */
  readonly pairError: number;
  readonly pairErrorFloor: number;
  /** s */
  readonly releaseTime: number;
  /** Cut-in force, jump-in output and slope of an assist curve may differ from the expected by these fractions. */
  readonly cutInForceTolerance: number;
  readonly jumpInTolerance: number;
  readonly slopeTolerance: number;
  /** Vacuum lost (Pa in `vacuumLossSeconds`) back through a check valve. */
  readonly reverseLeak: number;
  /** Useful strokes from the reserve at least. */
  readonly assistedApplications: number;
  /** The pedal sinks at least this far when assist comes, m. */
  readonly pedalSink: number;
  /** Output with vacuum over output without at one pedal force, at least. */
  readonly vehicleRatio: number;
  /** A pump may be slower than its sheet, its ultimate pressure higher, its thresholds off, by these fractions. */
  readonly pumpSpeedTolerance: number;
  readonly ultimateTolerance: number;
  readonly switchTolerance: number;
  /** Leak of a vacuum supply at rest, m3/s at standard conditions. */
  readonly supplyLeakFlow: number;
  /** A system counts as dead below this, Pa gauge. */
  readonly deadPressure: number;
  /** A precharge may differ from its sheet by this fraction. */
  readonly prechargeTolerance: number;
  /** A pump’s run from cut-in may differ from what the sheet’s model gives by this fraction. */
  readonly runTimeTolerance: number;
  /** A charge from empty may take this many times what the sheet’s model gives. */
  readonly chargeTimeFactor: number;
  /** Oil leak inside, times what a sound unit leaks by its sheet. */
  readonly internalLeakFactor: number;
  /** Useful applications of a charge at least, fraction of the prediction. */
  readonly applicationsShare: number;
  /** Supply drop under load, fraction of the rated voltage. */
  readonly supplyDrop: number;
  /** Motor current at working pressure may differ from the rated by this fraction. */
  readonly currentTolerance: number;
  /** A store’s pressure halves in no less than this, s. */
  readonly halfLife: number;
  /** A vehicle may sink this far on its springs once the hydraulics are off, m. */
  readonly heightLoss: number;
  /** Brake pressure that a bump may make, Pa gauge. */
  readonly bumpPressure: number;
  /** Two circuits may differ by this fraction of the regulated maximum. */
  readonly circuitDifference: number;
  /** Time to 90 % of a quick application, s. */
  readonly riseTime: number;
  /** Back pressure in a return line, Pa gauge. */
  readonly returnPressure: number;
  /** Boost may sag by this fraction while the steering takes its share. */
  readonly boostSag: number;
  /** A reserve may lose this fraction of its pressure over its soak. */
  readonly soakLossShare: number;
  /** Least supply vacuum at sea level by the two schools, Pa. */
  readonly leastVacuum: number;
  readonly leastVacuumStrict: number;
  /** Strokes after which a reserve counts as used up, where strokes are counted. */
  readonly exhaustStrokes: number;
  /** Soak before the first stroke is tried, s. */
  readonly soakSeconds: number;
  /** Stop-lamp switch closes between these, Pa. */
  readonly switchCloseMin: number;
  readonly switchCloseMax: number;
}

/** Starting values that a family brings: it declares them here (by module augmentation) and gives them in its rows. */
export interface FamilyLimits {}

export type WorkshopLimits = SharedLimits & Readonly<FamilyLimits>;

/** Pa; the two schools of least vacuum speak in inches. */
const inchOfMercury = 3386.389;

/** Where practitioners disagree, the school a workshop follows; named on the report. */
export interface WorkshopSchools {
  /** Least supply vacuum: 16 inHg, 18 inHg, or both (between them a pass is marginal). */
  readonly leastVacuum: 'both' | 'sixteen' | 'eighteen';
  /** The reserve is used up after a number of strokes, or once two strokes read the same. */
  readonly exhaust: 'count' | 'two-alike';
}

export const defaultWorkshopSchools: WorkshopSchools = { leastVacuum: 'both', exhaust: 'two-alike' };

const shared: SharedLimits = {
  boostRatioTolerance: 0.1,
  runOutTolerance: 0.15,
  cutInTolerance: 0.25,
  hysteresisFactor: 2,
  controlRemainder: 0.03,
  supplySag: 0.1,
  restDifference: 1_500,
  vacuumLoss: 3_300,
  vacuumLossSeconds: 15,
  outputDecay: 0.02 / 60,
  residual: 35_000,
  residualForceShare: 0.02,
  pairError: 0.03,
  pairErrorFloor: 0.005,
  releaseTime: 2,
  cutInForceTolerance: 0.3,
  jumpInTolerance: 0.5,
  slopeTolerance: 0.15,
  reverseLeak: 1_000,
  assistedApplications: 2,
  pedalSink: 0.005,
  vehicleRatio: 2,
  pumpSpeedTolerance: 0.2,
  ultimateTolerance: 0.25,
  switchTolerance: 0.05,
  supplyLeakFlow: 50e-6 / 60,
  deadPressure: 200_000,
  prechargeTolerance: 0.1,
  runTimeTolerance: 0.3,
  chargeTimeFactor: 1.4,
  internalLeakFactor: 4,
  applicationsShare: 0.8,
  supplyDrop: 0.05,
  currentTolerance: 0.3,
  halfLife: 4 * 3600,
  heightLoss: 0.01,
  bumpPressure: 150_000,
  circuitDifference: 0.06,
  riseTime: 0.4,
  returnPressure: 250_000,
  boostSag: 0.25,
  soakLossShare: 0.3,
  leastVacuum: 16 * inchOfMercury,
  leastVacuumStrict: 18 * inchOfMercury,
  exhaustStrokes: 8,
  soakSeconds: 300,
  switchCloseMin: 200_000,
  switchCloseMax: 800_000,
};

/** The starting values of all families. */
export const defaultWorkshopLimits = shared as WorkshopLimits;

/** Adds a family's starting values (declared in `FamilyLimits`); the registry does. */
export function joinWorkshopLimits(more: Partial<WorkshopLimits>): void {
  Object.assign(shared, more);
}
