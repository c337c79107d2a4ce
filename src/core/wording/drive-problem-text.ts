import { channelTitle } from '../quantities/channels';
import type { DriveProblem, LampChannel, LampMeaning } from '../vocabulary/drive-problem';
import { withUnit, type DisplayUnits } from './display';

/** What lamps can mean, each with the next check. */
const lampMeanings: Readonly<Record<LampMeaning, string>> = {
  'brake-trouble': 'brake trouble, the parking brake, or fluid low: see the level and the lever first',
  'store-pressure': 'too little pressure in the store: no braking but by the foot is sure; read the store',
  'pressure-split':
    'friction brakes with less than they need while slip control is off: a circuit, or the store behind it',
  'system-fault': 'a fault that leaves the brakes working: read the stored codes',
  'wheel-speed': 'a wheel’s speed that is lost: sensor, ring or plug; see the speed in this log',
  'stability-sensor': 'yaw rate or steering angle that is not believed: stability control rests',
  'slip-control-off': 'slip control off, brakes without it working: brake gently, read the codes',
  'network-down': 'the controllers not speaking to each other: supply, ground and plugs of the network',
  'bulb-check': 'the check of the bulbs after the key: no fault',
};

const lampTitles: Readonly<Record<LampChannel, string>> = {
  lamp_red: 'red',
  lamp_amber: 'amber',
  lamp_abs: 'anti-lock',
  lamp_stability: 'stability',
  buzzer: 'the buzzer',
};

const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;
const hertz = (rate: number) => `${Number(rate.toPrecision(2))} a second`;
const times = (count: number) => (count === 1 ? 'once' : `${count} times`);
const listed = (channels: readonly string[]) => channels.map((each) => channelTitle(each).toLowerCase()).join('; ');

function rowsBetween(over: Extract<DriveProblem, { code: 'column-rate' }>['over']): string {
  if (!over) return '';
  return over.between === 'again'
    ? ` (the logger wrote each ${times(over.times)}; what it wrote again counts for nothing)`
    : ` (the rest of its rows are straight lines between them, which count for nothing)`;
}

function lamps(lit: readonly LampChannel[]): string {
  const names = lit.map((each) => lampTitles[each]);
  return names.length === 1 ? names[0] : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;
}

/** What a drive's log could not tell, or what was noticed, and what to do about it. */
export function driveProblemText(problem: DriveProblem, units: DisplayUnits): string {
  const torque = (value: number) => withUnit(value, 'torque', units);
  const seconds = (value: number) => withUnit(value, 'time', units);
  const speed = (value: number) => withUnit(value, 'speed', units);
  switch (problem.code) {
    case 'column-too-slow':
      return `${channelTitle(problem.channel)} comes ${hertz(problem.rate)}: ${hertz(problem.needed)} or more are needed, or what comes and goes between two of them is not seen.`;
    case 'nobody-brakes':
      return 'Nobody brakes in this log: the torque that is requested never rises.';
    case 'torque-turned':
      return `${channelTitle(problem.channel)} counts braking as negative in this log; it was turned.`;
    case 'drive-left-out':
      return `${seconds(problem.seconds)} of ${seconds(problem.of)} are left out: something that is needed was not recorded then.`;
    case 'answer-delayed':
      // Told to a hundredth: that is how finely delays are tried.
      return `The brakes answer ${problem.seconds.toFixed(2)} s after the request; what they gave is brought forward by that.`;
    case 'vehicle-sensors-assumed':
      return `The vehicle’s own sensors, taken to be good to 1 % and 50 kPa (the motor’s torque to 2 %): ${listed(problem.channels)}.`;
    case 'largest-request':
      return `The largest torque that was requested: ${torque(problem.torque)}. Limits in per cent are of that.`;
    case 'largest-not-known':
      return 'Limits are shares of the largest torque that was requested: type that too.';
    case 'panics-not-told':
      return `Pedal travel comes ${hertz(problem.rate)}: from ${hertz(problem.needed)} on a stamp on the pedal can be told from an ordinary stop.`;
    case 'no-panic':
      return `Nobody stamped on the pedal in this log (${Math.round(problem.threshold * 1e3)} mm/s or more): a quick stop on closed ground would tell.`;
    case 'panics':
      return `The pedal was stamped on ${times(problem.found)}, and answered ${times(problem.answered)}; the slowest answer counts.`;
    case 'panic-not-answered':
      return `Stamped on ${times(problem.found)} without an answer before the braking ended.`;
    case 'panic-not-braked':
      return `Stamped on ${times(problem.found)} and no torque was requested within a second: the pedal’s own sensor, or nobody listens.`;
    case 'panic-not-recorded':
      return `What followed ${problem.found === 1 ? 'one stamp' : `${problem.found} stamps`} on the pedal is not all in the log.`;
    case 'no-handover':
      return `No stop in this log goes from above ${speed(problem.high)} to below ${speed(problem.low)} with the brakes on from a second before.`;
    case 'handovers':
      return `Handed over ${times(problem.found)}; the deepest dip counts.`;
    case 'never-full':
      return `The charge never reached ${percent(problem.limit)} while somebody braked (${percent(problem.highest)} at most): come down a pass with a full battery.`;
    case 'charge-as-a-share':
      return `The charge never exceeds ${problem.highest.toFixed(3)} %: is it written as a share of one? Give its column the unit “1”.`;
    case 'too-few-stops':
      return `${problem.found} stops of a second or more above the handover: ${problem.needed} say what the friction brakes give.`;
    case 'stops-alike':
      return 'All stops are alike: what the friction brakes give follows from stops that differ.';
    case 'gives-too-much':
      return `Friction brakes give ${problem.gain.toFixed(2)} times what their pressures say: no lining does. Mass, areas, radii, or a column’s unit are wrong.`;
    case 'friction-too-little':
      return `Above the handover the friction brakes did too little in this log to tell what they give (± ${problem.expanded.toFixed(1)}): brake harder from speed, or with a full battery.`;
    case 'open-before-handover':
      return `In the second before ${problem.found} of ${problem.of} handovers torque was missing already, up to ${torque(problem.torque)}: a dip is told from that, so that one may hide behind it. What does not close above the handover comes first.`;
    case 'speed-lost':
      return `The speed fell away or leapt up as no vehicle does, ${times(problem.times)}, for ${seconds(problem.seconds)} together; it is bridged.`;
    case 'rows-of-drive':
      return `${problem.rows.toLocaleString('en')} rows over ${seconds(problem.seconds)}.`;
    case 'column-rate':
      return `${hertz(problem.rate)}${rowsBetween(problem.over)}, longest gap ${Number(problem.gap.toPrecision(2))} s: ${listed(problem.channels)}.`;
    case 'log-lacks':
      return `${problem.title} cannot be told from this log: it has no ${listed(problem.channels)}.`;
    case 'lowest-while-braking':
      return `The store stood at ${withUnit(problem.pressure, 'gauge', units)} then, the highest wheel at ${withUnit(problem.wheel, 'gauge', units)}.`;
    case 'masters-apart-at':
      return `Furthest apart at ${withUnit(problem.one, 'gauge', units)} and ${withUnit(problem.other, 'gauge', units)}.`;
    case 'lamp-lit':
      return `${channelTitle(problem.channel)}: lit for ${seconds(problem.seconds)} of ${seconds(problem.of)}.`;
    case 'lamps-mean':
      return `With ${lamps(problem.lamps)} for ${seconds(problem.seconds)} it can be: ${problem.meanings.map((each) => lampMeanings[each]).join('; or ')}.`;
    case 'no-store-fitted':
      return 'By its sheet no store feeds the wheels: a plunger makes the pressure.';
    case 'no-lamp-lit':
      return 'No lamp was lit.';
    case 'switches-alike':
      return 'The two stop-lamp switches never differ: they agree, or one column was written twice.';
    case 'columns-alike':
      return `${channelTitle(problem.one)} and ${channelTitle(problem.other).toLowerCase()} are the same number in every sample: two sensors never are. One column was written twice.`;
    case 'friction-never-used':
      return 'No wheel’s pressure ever rose: the motor did all the braking, or none of these columns is alive. Of the friction brakes this log says nothing.';
    case 'switch-never-pressed':
      return 'Neither stop-lamp switch ever closed: nobody pressed the pedal, or both are dead.';
  }
}
