import { channelTitle } from '../quantities/channels';
import type { ElectricalProblem } from '../vocabulary/electrical-problem';
import { counted } from './counted';
import { withUnit, type DisplayUnits } from './display';

/** What a trace of supplies, grounds, sleep and sensors could not tell, or what was noticed, and what to do about it. */
export function electricalProblemText(problem: ElectricalProblem, units: DisplayUnits): string {
  switch (problem.code) {
    case 'battery-missing':
      return `The battery read ${withUnit(problem.voltage, 'voltage', units)}: connect it, and the meter to its terminals.`;
    case 'current-too-small':
      return `The motor drew ${withUnit(problem.current, 'current', units)} at most, where at least ${withUnit(problem.needed, 'current', units)} are needed to tell a drop: push harder.`;
    case 'feed-open':
      return `Only ${withUnit(problem.voltage, 'voltage', units)} arrive at the unit: its feed is open.`;
    case 'ground-in-feed':
      return 'Nobody recorded the ground terminal: what its wire loses is counted with the feed.';
    case 'lead-off':
      return `${channelTitle(problem.channel)} read ${withUnit(problem.voltage, 'voltage', units)} while ${withUnit(problem.current, 'current', units)} flowed, which so little cannot drive: the meter’s lead had come off. Clamp it on and push again.`;
    case 'drop-as-read':
      return `The ${problem.part} lost ${withUnit(problem.drop, 'voltage', units)} at ${withUnit(problem.current, 'current', units)}, as read; what is judged is what that comes to at the rated ${withUnit(problem.rated, 'current', units)}.`;
    case 'resistance-of':
      return `${problem.part === 'feed' ? 'Feed' : 'Ground'}: ${(problem.ohm * 1e3).toFixed(1)} mΩ by this drop and current.`;
    case 'weak-supply':
      return `Weak supply: ${withUnit(problem.voltage, 'voltage', units)} at the unit where ${withUnit(problem.rated, 'voltage', units)} are rated; limits are for what there was.`;
    case 'drop-negative':
      return problem.part === 'feed'
        ? `By these readings the feed gives ${withUnit(problem.by, 'voltage', units)} more than it gets: measure across the unit’s own terminals, and look for leads that are swapped.`
        : `The ground terminal reads ${withUnit(problem.by, 'voltage', units)} below the battery’s negative: the leads are swapped.`;
    case 'current-negative':
      return `${channelTitle(problem.channel)} reads ${withUnit(problem.current, 'small-current', units)}: a unit asleep gives none back. The leads are swapped, or the battery is being charged through it.`;
    case 'tracks-swapped':
      return 'Track A falls and track B rises: the columns or the wires are swapped.';
    case 'meter-not-seen-alive':
      return `${channelTitle(problem.channel)} was never seen above its limit: a meter that is open or off reads nothing too. Record it from while the unit is awake.`;
    case 'key-still-on':
      return 'The key was still on at the end: take it away, and wait until the unit sleeps.';
    case 'key-off-assumed':
      return 'Nobody saw the key go off: it is taken to have been off from the start of the log.';
    case 'sensor-not-supplied':
      return `The sensor was fed ${withUnit(problem.voltage, 'voltage', units)}: key on, and the plug in.`;
    case 'sensor-supply-assumed':
      return `Nobody recorded the sensor’s supply: ${withUnit(problem.voltage, 'voltage', units)} of the sheet are taken, and both tracks go with it.`;
    case 'stroke-too-short':
      return `The stroke went ${withUnit(problem.reached, 'length', units)}, where at least ${withUnit(problem.needed, 'length', units)} are needed: push on.`;
    case 'track-without-line':
      return 'A track has no line of its own over the travel: look at its plug and pins.';
    case 'track-stays-off':
      return `A track left its line for good or for long, ${counted(problem.times, 'time')}: no dropout, but a break.`;
    case 'sum-worst-at':
      return `The sum of the tracks is worst at ${withUnit(problem.at, 'length', units)} of travel.`;
    case 'sampled-too-slowly':
      return `${problem.rate.toFixed(0)} samples a second tell nothing of moments: log at ${problem.needed} or more.`;
  }
}
