import { findChannel } from '../quantities/channels';
import type { ShownAs } from '../quantities/shown-as';
import type { StepContext } from '../procedure/step-context';

/** What anybody would believe of a figure of this kind without asking, SI. */
const plausibleRanges: Readonly<Record<ShownAs, readonly [number, number]>> = {
  gauge: [-100e3, 25e6],
  vacuum: [-1e3, 101.4e3],
  absolute: [0, 110e3],
  difference: [-2e6, 2e6],
  'vacuum-difference': [-5e3, 101.4e3],
  rate: [-200e3, 200e3],
  flow: [-1e-3, 1e-3],
  'pump-flow': [0, 0.05],
  time: [0, 86_400],
  ratio: [0, 30],
  count: [0, 60],
  tally: [0, 1000],
  state: [0, 1],
  force: [-50, 10e3],
  length: [-0.2, 0.4],
  'slope-per-force': [0, 200e3],
  'slope-per-angle': [0, 5e6],
  'force-per-pressure': [0, 0.1],
  angle: [-5, 90],
  current: [-5, 300],
  'small-current': [-0.1, 5],
  voltage: [0, 60],
  'long-time': [0, 60 * 86_400],
  stiffness: [0, 1e6],
  creep: [-0.05, 0.05],
  energy: [0, 1e6],
  percent: [-1, 1],
  rotation: [0, 1000],
  torque: [-50e3, 50e3],
  speed: [-1, 70],
  'angle-rate': [-200, 200],
  deceleration: [0, 15],
  distance: [0, 2000],
  volume: [0, 0.05],
  temperature: [233, 473],
};

/** Range of plausible figures for a quantity read on a channel: never more than its instrument can show, SI. */
export function plausibleRange(as: ShownAs, channel: string | null, context: StepContext<unknown>): [number, number] {
  const [low, high] = plausibleRanges[as];
  const instrument = channel === null ? undefined : context.instruments.get(channel);
  const shows = instrument && findChannel(channel ?? '') && as !== 'rate' && as !== 'ratio' && as !== 'flow';
  const top = as === 'vacuum' ? Math.min(high, context.ambient.pressure) : high;
  return [low, shows ? Math.min(top, instrument.range * 1.02) : top];
}
