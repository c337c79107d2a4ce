import type { GuidePhase } from '../procedure/guide-phase';
import { concatTraces, type Trace } from '../traces/trace';
import { advanceGuide, controlsIn, guideDone, guideStart, leverByItself } from '../procedure/guide';
import { restControls } from '../physics/bench-controls';
import type { StandInRig } from './stand-in-rig';

const { max, round } = Math;

/** Share of the sample rate at which the guide is looked at, s. */
const guideInterval = 0.1;

/** A slow logger's guide is looked at every few samples, or nothing would be left but looking. */
const leastSamples = 5;

/** Recorded after a duty limit has switched everything off, so that the trace shows it, s. */
export const afterCut = 1;

/** A guided step that has not ended after this long is broken off, s. */
const longestStep = 3 * 3600;

/** Channels that the phases wait for. */
function watchedChannels(phases: readonly GuidePhase[]): readonly string[] {
  const channels = phases.flatMap(({ end, duty }) => [
    ...(end.kind === 'reading' || end.kind === 'switched' ? [end.channel] : []),
    ...(duty ? [duty.channel] : []),
  ]);
  return [...new Set(channels)];
}

/** Where a hand has the lever while a guide goes on; given up after `longest` seconds. */
export interface Hand {
  readonly lever: typeof leverByItself;
  readonly longest: number;
}

const rigsOwn: Hand = { lever: leverByItself, longest: longestStep };

/** Runs every phase with the rig (or another hand) at the lever, and returns the recorded trace. */
export function runByItself(rig: StandInRig, phases: readonly GuidePhase[], hand: Hand = rigsOwn): Trace {
  const chunk = max(leastSamples, round(guideInterval * rig.sampleRate));
  const watched = watchedChannels(phases);
  const parts: Trace[] = [];
  let state = guideStart;
  for (let seconds = 0; !guideDone(phases, state) && seconds < hand.longest; seconds += chunk / rig.sampleRate) {
    const later = { ...state, elapsed: state.elapsed + chunk / rig.sampleRate };
    const lever = hand.lever(phases, later);
    const part = rig.advance(chunk, controlsIn(phases, state, hand.lever(phases, state)), lever);
    parts.push(part);
    const readings: Record<string, number> = {};
    for (const channel of watched) readings[channel] = part.columns[channel]?.[chunk - 1] ?? Number.NaN;
    const input = (rig.leverChannel === null ? undefined : part.columns[rig.leverChannel]?.[chunk - 1]) ?? lever;
    state = advanceGuide(phases, state, { dt: chunk / rig.sampleRate, input, lever, readings });
  }
  if (state.cut) parts.push(rig.advance(max(1, round(afterCut * rig.sampleRate)), restControls));
  return concatTraces(parts);
}
