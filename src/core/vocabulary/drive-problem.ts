/** What a set of lamps that were lit can mean; its sentence is in wording/lamp-texts. */
export type LampMeaning =
  | 'brake-trouble'
  | 'store-pressure'
  | 'pressure-split'
  | 'system-fault'
  | 'wheel-speed'
  | 'stability-sensor'
  | 'slip-control-off'
  | 'network-down'
  | 'bulb-check';

/** Lamps, and the buzzer, of a vehicle's brakes. */
export type LampChannel = 'lamp_red' | 'lamp_amber' | 'lamp_abs' | 'lamp_stability' | 'buzzer';

/** What a drive's log could not tell, or what was noticed in it. Facts are s, Hz, m/s, N·m, Pa; charge and shares are fractions. */
export type DriveProblem =
  | { readonly code: 'column-too-slow'; readonly channel: string; readonly rate: number; readonly needed: number }
  | { readonly code: 'nobody-brakes' }
  | { readonly code: 'torque-turned'; readonly channel: string }
  | { readonly code: 'drive-left-out'; readonly seconds: number; readonly of: number }
  | { readonly code: 'answer-delayed'; readonly seconds: number }
  | { readonly code: 'vehicle-sensors-assumed'; readonly channels: readonly string[] }
  | { readonly code: 'largest-request'; readonly torque: number }
  | { readonly code: 'largest-not-known' }
  | { readonly code: 'panics-not-told'; readonly rate: number; readonly needed: number }
  | { readonly code: 'no-panic'; readonly threshold: number }
  | { readonly code: 'panics'; readonly found: number; readonly answered: number }
  | { readonly code: 'panic-not-answered'; readonly found: number }
  | { readonly code: 'panic-not-braked'; readonly found: number }
  | { readonly code: 'panic-not-recorded'; readonly found: number }
  | { readonly code: 'no-handover'; readonly high: number; readonly low: number }
  | { readonly code: 'handovers'; readonly found: number }
  | { readonly code: 'never-full'; readonly highest: number; readonly limit: number }
  | { readonly code: 'charge-as-a-share'; readonly highest: number }
  | { readonly code: 'too-few-stops'; readonly found: number; readonly needed: number }
  | { readonly code: 'stops-alike' }
  | { readonly code: 'gives-too-much'; readonly gain: number }
  | { readonly code: 'friction-too-little'; readonly expanded: number }
  | {
      readonly code: 'open-before-handover';
      readonly torque: number;
      readonly found: number;
      readonly of: number;
    }
  | { readonly code: 'speed-lost'; readonly times: number; readonly seconds: number }
  | { readonly code: 'rows-of-drive'; readonly rows: number; readonly seconds: number }
  | {
      readonly code: 'column-rate';
      readonly channels: readonly string[];
      readonly rate: number;
      readonly gap: number;
      /** How many rows the logger made of each sample, and what it put into them; null where it made one. */
      readonly over: { readonly between: 'again' | 'line'; readonly times: number } | null;
    }
  /** A step cannot be answered from this log: it lacks these channels. */
  | { readonly code: 'log-lacks'; readonly title: string; readonly channels: readonly string[] }
  | {
      readonly code: 'lowest-while-braking';
      readonly channel: string;
      readonly pressure: number;
      readonly wheel: number;
    }
  | { readonly code: 'masters-apart-at'; readonly one: number; readonly other: number }
  | { readonly code: 'lamp-lit'; readonly channel: LampChannel; readonly seconds: number; readonly of: number }
  | {
      readonly code: 'lamps-mean';
      readonly lamps: readonly LampChannel[];
      readonly seconds: number;
      readonly meanings: readonly LampMeaning[];
    }
  | { readonly code: 'no-store-fitted' }
  | { readonly code: 'no-lamp-lit' }
  | { readonly code: 'switches-alike' }
  | { readonly code: 'switch-never-pressed' }
  | { readonly code: 'columns-alike'; readonly one: string; readonly other: string }
  | { readonly code: 'friction-never-used' };

const driveCodes: Readonly<Record<DriveProblem['code'], true>> = {
  'column-too-slow': true,
  'nobody-brakes': true,
  'torque-turned': true,
  'drive-left-out': true,
  'answer-delayed': true,
  'vehicle-sensors-assumed': true,
  'largest-request': true,
  'largest-not-known': true,
  'panics-not-told': true,
  'no-panic': true,
  panics: true,
  'panic-not-answered': true,
  'panic-not-braked': true,
  'panic-not-recorded': true,
  'no-handover': true,
  handovers: true,
  'never-full': true,
  'charge-as-a-share': true,
  'too-few-stops': true,
  'stops-alike': true,
  'gives-too-much': true,
  'friction-too-little': true,
  'open-before-handover': true,
  'speed-lost': true,
  'rows-of-drive': true,
  'column-rate': true,
  'log-lacks': true,
  'lowest-while-braking': true,
  'masters-apart-at': true,
  'lamp-lit': true,
  'lamps-mean': true,
  'no-store-fitted': true,
  'no-lamp-lit': true,
  'switches-alike': true,
  'switch-never-pressed': true,
  'columns-alike': true,
  'friction-never-used': true,
};

/** Whether a problem is of a drive's log. */
export function isDriveProblem(problem: { readonly code: string }): problem is DriveProblem {
  return Object.hasOwn(driveCodes, problem.code);
}
