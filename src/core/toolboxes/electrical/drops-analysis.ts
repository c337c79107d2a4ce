import {
  expandedUncertainty,
  random,
  readingComponents,
  scaleComponents,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { Characteristic } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { integrated, largestWindow } from '../../traces/time-mean';
import { ownSamples, scatterOf, type Samples } from '../../traces/own-samples';
import { columnOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { SuppliedUnit } from './supplied-unit';

type Context = StepContext<SuppliedUnit>;

const { max, sqrt } = Math;

/** A drop is read over so long, where the current is largest, s. */
const windowSeconds = 0.5;
/** Below this share of the rated current nobody can tell what a drop comes to. */
export const leastCurrent = 0.2;
/** A feed that stands below this share of the battery is open. */
const openShare = 0.5;
/** Below this share of the battery nothing drives a current. */
const nothingShare = 0.05;

const ids = ['supply-drop', 'ground-drop'] as const;

/** Voltages (V) and current (A) over the half second with the largest mean current. */
interface Loaded {
  readonly current: number;
  readonly battery: number;
  readonly supply: number;
  /** Null where nobody recorded it: then the drop of the ground is in that of the feed. */
  readonly ground: number | null;
  readonly feed: Feed;
  /** Standard deviation of a mean over the window, V, by channel. */
  readonly noise: Readonly<Record<string, number>>;
}

function meanNoise(samples: Samples): number {
  const { time } = samples;
  const span = time[time.length - 1] - time[0];
  const inWindow = span > 0 ? max(1, (time.length * windowSeconds) / span) : 1;
  return scatterOf(samples) / sqrt(inWindow);
}

/** What became of a feed under load: it held, it gave way and left so much (V), or its meter's lead came off. */
type Feed =
  | { readonly kind: 'held' }
  | { readonly kind: 'gave-way'; readonly battery: number; readonly supply: number }
  | { readonly kind: 'lead-off'; readonly voltage: number; readonly current: number };

/** The first half second in which a feed that was loaded reads less than half of the battery tells what became of it. */
function feedUnderLoad(current: Samples, battery: Samples, supply: Samples, ratedCurrent: number): Feed {
  const [ofCurrent, ofBattery, ofSupply] = [current, battery, supply].map(integrated);
  const { time, value } = supply;
  const end = time[time.length - 1] - windowSeconds;
  const highest = battery.value.reduce((most, each) => max(most, each), 0);
  const loaded = leastCurrent * ratedCurrent;
  for (let i = 1; i < time.length && time[i] <= end; i++) {
    if (value[i] >= openShare * highest) continue;
    const at = time[i];
    const whole = ofBattery.mean(at, at + windowSeconds);
    if (!(value[i] < openShare * whole && value[i - 1] >= openShare * whole)) continue;
    const left = ofSupply.mean(at, at + windowSeconds);
    if (whole < 1 || !(left < openShare * whole) || !(ofCurrent.mean(at - windowSeconds, at) >= loaded)) continue;
    const flowing = ofCurrent.mean(at, at + windowSeconds);
    // Nothing drives no current: what reads nothing while it flows is not the feed.
    return left < nothingShare * whole && flowing >= loaded
      ? { kind: 'lead-off', voltage: left, current: flowing }
      : { kind: 'gave-way', battery: whole, supply: left };
  }
  return { kind: 'held' };
}

function findLoaded(trace: Trace, context: Context): Loaded | NoEvidence {
  const of = (channel: string) => {
    const column = columnOf(trace, channel);
    return column && ownSamples(trace, column);
  };
  const current = of('motor_current');
  const battery = of('battery_voltage');
  const supply = of('supply_voltage');
  const ground = of('ground_voltage');
  for (const [channel, samples] of Object.entries({
    motor_current: current,
    battery_voltage: battery,
    supply_voltage: supply,
  }))
    if (!samples || samples.time.length < 3) return noEvidence({ code: 'channel-missing', channel });
  const window = largestWindow(current!, windowSeconds);
  if (!window) return noEvidence({ code: 'hold-too-short', seconds: 0, needed: windowSeconds });
  const mean = (samples: Samples) => integrated(samples).mean(window.from, window.from + windowSeconds);
  return {
    current: window.mean,
    battery: mean(battery!),
    supply: mean(supply!),
    ground: ground && ground.time.length > 2 ? mean(ground) : null,
    feed: feedUnderLoad(current!, battery!, supply!, context.unit.ratedCurrent),
    noise: {
      battery_voltage: meanNoise(battery!),
      supply_voltage: meanNoise(supply!),
      ground_voltage: ground ? meanNoise(ground) : 0,
    },
  };
}

function loadedEvidence(found: Loaded): Judged<Loaded> {
  const { battery, supply, ground, feed } = found;
  if (feed.kind === 'lead-off')
    return noEvidence({ code: 'lead-off', channel: 'supply_voltage', voltage: feed.voltage, current: feed.current });
  if (Number.isNaN(battery) || Number.isNaN(supply) || (ground !== null && Number.isNaN(ground)))
    return noEvidence({ code: 'gap-in-hold', channel: 'supply_voltage', seconds: windowSeconds });
  // A battery that is not there says nothing of a feed.
  if (battery < 1) return noEvidence({ code: 'battery-missing', voltage: battery });
  return evidence(found);
}

/** What a drop comes to at the rated current; one that is above its limit as it stands is told as it stands. */
function dropOf(
  id: 'supply-drop' | 'ground-drop',
  drop: number,
  {
    current,
    limit,
    parts,
    context,
  }: {
    readonly current: number;
    readonly limit: number;
    readonly parts: readonly UncertaintyComponent[];
    readonly context: Context;
  },
): Characteristic {
  const { ratedCurrent } = context.unit;
  const forbidden = drop < -expandedUncertainty({ value: drop, components: parts });
  if (forbidden)
    return absent(id, { code: 'drop-negative', part: id === 'supply-drop' ? 'feed' : 'ground', by: -drop });
  if (drop > limit) return measured(id, drop, parts);
  const needed = leastCurrent * ratedCurrent;
  if (current < needed) return absent(id, { code: 'current-too-small', current, needed });
  const factor = max(1, ratedCurrent / current);
  return measured(id, drop * factor, scaleComponents(parts, factor));
}

function dropsOf(shown: Evidence<Loaded>, context: Context) {
  const { current, ground, noise } = shown;
  // A feed that gives way under load is judged by what it left then, however good it was before.
  const gaveWay = shown.feed.kind === 'gave-way' ? shown.feed : null;
  const { battery, supply } = gaveWay ?? shown;
  const { supplyDropMax, groundDropMax } = context.unit;
  const read = (channel: string, value: number) => {
    const instrument = context.instruments.get(channel);
    return [random('noise', noise[channel]), ...(instrument ? readingComponents(instrument, value, context.date) : [])];
  };
  const feed = battery - supply - (gaveWay ? 0 : (ground ?? 0));
  const open = supply < openShare * battery;
  const groundParts = ground === null ? [] : read('ground_voltage', ground);
  const feedParts = [...read('battery_voltage', battery), ...read('supply_voltage', supply), ...groundParts];
  const { ratedCurrent } = context.unit;
  const asRead = (part: 'feed' | 'ground', drop: number, limit: number): AnalysisProblem[] =>
    drop <= limit && drop > 0 && current < ratedCurrent && current >= leastCurrent * ratedCurrent
      ? [{ code: 'drop-as-read', part, drop, current, rated: ratedCurrent }]
      : [];
  const resistance = (part: 'feed' | 'ground', drop: number): AnalysisProblem[] =>
    current > leastCurrent * context.unit.ratedCurrent && !open
      ? [{ code: 'resistance-of', part, ohm: drop / current }]
      : [];
  return {
    characteristics: [
      dropOf('supply-drop', feed, { current, limit: supplyDropMax, parts: feedParts, context }),
      ground === null
        ? absent('ground-drop', { code: 'channel-missing', channel: 'ground_voltage' })
        : dropOf('ground-drop', ground, { current, limit: groundDropMax, parts: groundParts, context }),
    ],
    events: [],
    notes: [
      ...(open ? [{ code: 'feed-open', voltage: supply } as const] : []),
      ...(ground === null ? [{ code: 'ground-in-feed' } as const] : []),
      ...asRead('feed', feed, supplyDropMax),
      ...(ground === null ? [] : asRead('ground', ground, groundDropMax)),
      ...resistance('feed', feed),
      ...(ground === null ? [] : resistance('ground', ground)),
    ],
  };
}

/**
 * Drop of the feed (V) = battery − supply − ground, and of the ground (V), means over the half second with the largest mean current, each
 * restated to the rated current; what is above its limit already is left as it stands. Channels `motor_current`, `battery_voltage`,
 * `supply_voltage` (across the unit's terminals), `ground_voltage` (its ground against the battery's negative).
 */
export function analyseDrops(trace: Trace, context: Context): Answered {
  const question: Question<Context, Loaded, Loaded> = {
    characteristics: ids,
    happened: (read) => findLoaded(read, context),
    shows: loadedEvidence,
    comesTo: dropsOf,
  };
  return answer(question, trace, context);
}
