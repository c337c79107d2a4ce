import { channelTitle } from '../quantities/channels';
import { places } from '../quantities/places';
import type { DecoupledProblem } from '../vocabulary/decoupled-problem';
import { withUnit, type DisplayUnits } from './display';

const shortFigure = (value: number) => Number(value.toPrecision(3)).toString();

/** What a trace of a decoupled unit could not tell, or what was noticed, and what to do about it. */
export function decoupledProblemText(problem: DecoupledProblem, units: DisplayUnits): string {
  switch (problem.code) {
    case 'sensor-not-named':
      return 'Nobody said which sensor this is: a line “# sensor: fl” above the table (master, store, fl, fr, rl, rr), or the choice beside the readings.';
    case 'another-sensor':
      return 'Not held against the gauge yet: the run is of another sensor.';
    case 'not-awake':
      return 'The unit was not awake: without power the pedal works on the wheels, not on its simulator.';
    case 'power-not-seen':
      return 'Nothing in the trace shows whether the unit had power: record the ignition or the supply voltage with it.';
    case 'stage-not-reached':
      return `Pressed to ${withUnit(problem.reached, 'length', units)}: the second stage begins ${withUnit(problem.by, 'length', units)} further at the latest.`;
    case 'no-second-stage':
      return `Pressed to ${withUnit(problem.reached, 'length', units)} and it never became stiffer.`;
    case 'follows-before':
      return `The wheel ${places[problem.wheel].title} moves ${withUnit(problem.by, 'time', units)} before it is asked to: the two columns have not one clock, or are not what they are called.`;
    case 'rate-limited':
      return `${channelTitle(problem.channel)} changes by ${withUnit(problem.rate, 'gauge', units)} a second at most: the source, not the wheel, sets its pace.`;
    case 'one-clock-assumed':
      return 'Targets and pressures are taken to be stamped by one clock.';
    case 'wheel-took':
      return `Wheel ${places[problem.wheel].title}: ${withUnit(problem.seconds, 'time', units)}.`;
    case 'pressed-slowly':
      return `The foot itself took ${withUnit(problem.seconds, 'time', units)}: press in ${withUnit(problem.needed, 'time', units)} or less, or the unit cannot be told from it.`;
    case 'never-reached':
      return `${channelTitle(problem.channel)} never reached nine tenths of what it was to hold.`;
    case 'source-not-up':
      return `The source was not up: no wheel above ${withUnit(problem.needed, 'gauge', units)}, so that nothing could creep.`;
    case 'source-not-seen-up':
      return 'Nothing in the trace shows that the source was up: record a wheel’s pressure or the ignition with it.';
    case 'foot-not-recorded':
      return 'Nobody recorded the foot’s force: a foot that tires looks like creep.';
    case 'more-than-the-foot':
      return `${withUnit(problem.pressure, 'gauge', units)} is more than a foot can give (${withUnit(problem.most, 'gauge', units)} without any loss): the unit still helped.`;
    case 'load-not-seen':
      return 'No load came on in the trace: a rest first, then the load.';
    case 'bank-hardly-fell':
      return `Under load it fell by ${withUnit(problem.by, 'voltage', units)} only: ${withUnit(problem.needed, 'voltage', units)} or more say what it holds.`;
    case 'charger-still-on':
      return 'The voltage still rose, or did not give way, as the load came on: take the charger off first.';
    case 'no-bank-on-sheet':
      return 'The sheet has no figures of a backup bank.';
    case 'no-bank-fitted':
      return 'The sheet says that no backup bank is fitted.';
    case 'bank-drains':
      return `It loses charge by itself: ${(problem.share * 100).toFixed(1)} % of its fall under load is put down to that.`;
    case 'bank-found':
      return `The bank: ${shortFigure(problem.capacitance)} F behind ${shortFigure(problem.resistance * 1e3)} mΩ.`;
    case 'bank-below-least':
      return `It stood at ${withUnit(problem.voltage, 'voltage', units)} before the load, below the ${withUnit(problem.least, 'voltage', units)} down to which it is of use.`;
    case 'bank-not-full':
      return `It stood at ${withUnit(problem.voltage, 'voltage', units)} before the load, not at its ${withUnit(problem.full, 'voltage', units)}: judged as it stood.`;
    case 'not-put-to-sleep':
      return 'It was not put to sleep: a small current now may be an ampere at the next door.';
    case 'zero-not-read-asleep':
      return 'The log does not begin with the unit asleep: the gauges’ zeros are not known, and count in full.';
  }
}
