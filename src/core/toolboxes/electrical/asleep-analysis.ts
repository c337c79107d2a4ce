import {
  expandedUncertainty,
  random,
  readingComponents,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { Characteristic } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { ownSamples, scatterOf } from '../../traces/own-samples';
import { integrated } from '../../traces/time-mean';
import { columnOf, type Trace } from '../../traces/trace';
import type { SleepingUnit } from './supplied-unit';

type Context = StepContext<SleepingUnit>;

const { max, sqrt } = Math;

/** Current asleep is read from so long after it should sleep, at least so long, s. */
export interface AsleepOptions {
  readonly least: number;
}

/** What the feed carried from where the unit should be asleep. */
interface Asleep {
  readonly channel: string;
  readonly mean: number;
  readonly noise: number;
  /** s for which it was read. */
  readonly seconds: number;
  /** The key was seen to go off; else the log is taken to begin with it. */
  readonly keySeen: boolean;
  readonly keyOn: boolean;
  /** The meter was seen above the limit, so that it is one that works. */
  readonly alive: boolean;
  readonly least: number;
}

function findAsleep(trace: Trace, { unit }: Context, least: number): Asleep | NoEvidence {
  const channel = columnOf(trace, 'sleep_current') ? 'sleep_current' : 'motor_current';
  const column = columnOf(trace, channel);
  if (!column) return noEvidence({ code: 'channel-missing', channel: 'sleep_current' });
  const samples = ownSamples(trace, column);
  const key = columnOf(trace, 'ignition_on');
  const end = samples.time[samples.time.length - 1];
  let off = trace.time[0];
  if (key) for (let i = 0; i < key.length; i++) if (key[i] > 0.5) off = trace.time[i];
  const from = off + unit.sleepAfter;
  const keyOn = key ? key[key.length - 1] > 0.5 : false;
  return {
    channel,
    mean: integrated(samples).mean(from, end),
    noise: scatterOf(samples) / sqrt(max(1, samples.time.filter((time) => time >= from).length)),
    seconds: max(0, end - from),
    keySeen: key !== undefined && off > trace.time[0],
    keyOn,
    alive: samples.value.some((value) => value > unit.quiescentMax),
    least,
  };
}

function asleepEvidence(found: Asleep): Judged<Asleep> {
  if (found.keyOn) return noEvidence({ code: 'key-still-on' });
  if (found.seconds < found.least)
    return noEvidence({ code: 'soak-too-short', seconds: found.seconds, needed: found.least });
  if (Number.isNaN(found.mean))
    return noEvidence({ code: 'gap-in-hold', channel: found.channel, seconds: found.least });
  return evidence(
    found,
    found.keySeen ? [] : [{ code: 'key-off-assumed' }],
    // What reads nothing from first to last may be a meter that is open.
    found.alive ? [] : [{ code: 'meter-not-seen-alive', channel: found.channel }],
  );
}

/** Current asleep (A) read on a channel; one that runs backwards by more than its uncertainty proves nothing. */
export function currentAsleep(
  channel: string,
  current: number,
  parts: readonly UncertaintyComponent[],
): Characteristic {
  return current < -expandedUncertainty({ value: current, components: parts })
    ? absent('quiescent-current', { code: 'current-negative', channel, current })
    : measured('quiescent-current', current, parts);
}

/**
 * Current asleep (A): mean from `sleepAfterS` after the key went off (`ignition_on`; else the log's start) to the end, over at least
 * `least` s. Channel `sleep_current`, or where that is missing `motor_current`.
 */
export function analyseAsleep(trace: Trace, context: Context, { least }: AsleepOptions): Answered {
  const question: Question<Context, Asleep, Asleep> = {
    characteristics: ['quiescent-current'],
    happened: (read) => findAsleep(read, context, least),
    shows: asleepEvidence,
    comesTo: ({ channel, mean, noise }) => {
      const instrument = context.instruments.get(channel);
      const parts = instrument ? readingComponents(instrument, mean, context.date) : [];
      return {
        characteristics: [currentAsleep(channel, mean, [random('noise', noise), ...parts])],
        events: [],
        notes: [],
      };
    },
  };
  return answer(question, trace, context);
}
