import { random } from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import { evidence } from '../../procedure/evidence';
import { answer, type Question } from '../../procedure/question';
import { longestGap } from '../../traces/own-samples';
import { meanInterval } from '../../traces/time-mean';
import { columnOf, type Trace } from '../../traces/trace';
import { findChannel } from '../../quantities/channels';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { rangeOf, samplesOf, type DriveSamples } from './drive';
import { driveStep, type Lacking } from './step-parts';
import { speedOf, type Context, type DriveSpeed } from './read-log';

/** A speed that is told less often than this may fall away and come back unseen, Hz. */
const speedRateLeast = 4;
/** A speed that never changes by so much is of a vehicle that stands, or of no sensor, m/s. */
const standing = 1;

interface Looked {
  readonly speed: DriveSpeed | AnalysisProblem;
  readonly notes: readonly AnalysisProblem[];
}

/** What columns of a log are sampled at, and for how long they are silent: those that are alike together. */
function columnNotes(trace: Trace): AnalysisProblem[] {
  const [from, to] = [trace.time[0], trace.time[trace.time.length - 1]];
  const alike = new Map<string, { channels: string[]; rate: number; gap: number; over: DriveSamples['over'] }>();
  // Channels without a hole share the log's own times.
  const gaps = new Map<Float64Array, number>();
  for (const channel of Object.keys(trace.columns)) {
    const samples = findChannel(channel) && columnOf(trace, channel) ? samplesOf(trace, channel) : null;
    if (!samples || samples.time.length < 2) continue;
    const rate = 1 / meanInterval(samples);
    const gap = gaps.get(samples.time) ?? longestGap(samples, from, to);
    gaps.set(samples.time, gap);
    const { over } = samples;
    const key = `${rate.toPrecision(2)} ${gap.toPrecision(2)} ${over?.between} ${over?.times}`;
    const group = alike.get(key) ?? { channels: [], rate, gap, over };
    group.channels.push(channel);
    alike.set(key, group);
  }
  return [...alike.values()].map((group) => ({ code: 'column-rate', ...group }));
}

/** What the other steps cannot tell from a log for want of channels. */
const lacksOf = (trace: Trace, others: readonly Lacking[]): AnalysisProblem[] =>
  others.flatMap(({ title, lacks }) => {
    const channels = lacks(trace);
    return channels.length > 0 ? [{ code: 'log-lacks', title, channels } as const] : [];
  });

/** The speed of a log, or why it would not show that it falls away. */
function tellingSpeed(trace: Trace): DriveSpeed | AnalysisProblem {
  const speed = speedOf(trace);
  if (!speed) return { code: 'channel-missing', channel: 'vehicle_speed' };
  const { time, value } = speed.recorded;
  const rate = time.length > 1 ? 1 / meanInterval(speed.recorded) : 0;
  if (rate < speedRateLeast) return { code: 'column-too-slow', channel: 'vehicle_speed', rate, needed: speedRateLeast };
  return rangeOf(value) < standing ? { code: 'gauge-never-moved', channel: 'vehicle_speed' } : speed;
}

function question(others: readonly Lacking[]): Question<Context, Looked, Looked> {
  return {
    characteristics: ['speed-dropouts'],
    happened: (trace) => {
      const rows = trace.time.length;
      const seconds = rows > 0 ? trace.time[rows - 1] - trace.time[0] : 0;
      return {
        speed: tellingSpeed(trace),
        notes: [{ code: 'rows-of-drive', rows, seconds }, ...lacksOf(trace, others), ...columnNotes(trace)],
      };
    },
    shows: (looked) => evidence(looked, looked.notes),
    comesTo: ({ speed }) => {
      if ('code' in speed) return { characteristics: [absent('speed-dropouts', speed)], events: [], notes: [] };
      const { dropouts } = speed;
      const seconds = dropouts.reduce((sum, { from, to }) => sum + to - from, 0);
      return {
        characteristics: [measured('speed-dropouts', dropouts.length, [random('counting', 0)])],
        events: dropouts.map(({ from }) => ({ id: 'speed-lost', time: from })),
        notes: dropouts.length > 0 ? [{ code: 'speed-lost', times: dropouts.length, seconds }] : [],
      };
    },
  };
}

/** What a log holds, and what it therefore cannot say: first, before anything is asked of it. */
export const logCheck = (others: readonly Lacking[]) =>
  driveStep({
    id: 'log-check',
    title: 'What the log holds',
    why: 'Rates, gaps and channels first: what a log cannot tell is said before it is asked, and a speed that falls away is a fault of its own.',
    minutes: 2,
    characteristics: ['speed-dropouts'],
    needs: [],
    uses: [
      'vehicle_speed',
      ...new Set(others.flatMap(({ reads }) => reads).filter((channel) => channel !== 'vehicle_speed')),
    ],
    analyse: (trace, context) => answer(question(others), trace, context),
    limits: (_analysis, { workshopLimits }) => [
      {
        characteristic: 'speed-dropouts',
        low: null,
        high: workshopLimits.speedDropouts,
        expected: 0,
        standard: 0,
        source: { kind: 'workshop', key: 'speedDropouts' },
      },
    ],
  });
