import type { Shell } from './shell-temperature';
import type { Instrument } from '../instruments/instrument';
import type { Ambient } from '../quantities/standard-atmosphere';
import type { WorkshopLimits, WorkshopSchools } from './workshop-limits';
import type { Corrections } from './step-analysis';

/** What a step's analysis may use besides its trace. */
export interface StepContext<Unit> {
  readonly unit: Unit;
  readonly ambient: Ambient;
  /** Air temperature, K. */
  readonly airTemperature: number;
  /** What is known of the shells of stores. */
  readonly shell: Shell;
  /** Hoses, tee and gauges on the vacuum side, m3; null when nobody measured it. */
  readonly benchVolume: number | null;
  readonly instruments: ReadonlyMap<string, Instrument>;
  /** ISO date against which calibrations are judged. */
  readonly date: string;
  readonly corrections: Corrections;
  readonly workshopLimits: WorkshopLimits;
  readonly schools: WorkshopSchools;
  /** Where the step is done: steps that two plans share are set up differently. */
  readonly plan: PlanId;
}

export type PlanId = 'bench' | 'vehicle';
