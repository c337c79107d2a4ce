import type { GuidePhase } from '../procedure/guide-phase';
import type { Trace } from '../traces/trace';
import { advanceGuide, controlsIn, guideDone, guideStart, leverByItself } from '../procedure/guide';
import { restControls } from '../physics/bench-controls';
import { recordingOf } from './recording';
import type { StandInRig } from './stand-in-rig';

const { max, round } = Math;

/** Share of the sample rate at which the guide is looked at, s. */
const guideInterval = 0.1;

/** A slow logger's guide is looked at every few samples, or nothing would be left but looking. */
const leastSamples = 5;

/** Recorded after a duty limit has switched everything off, so that the trace shows it, s. */
export const afterCut = 1;

/** Samples that a recording has room for at first. */
const firstRoom = 4096;

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
  const recording = recordingOf(rig.channels, firstRoom);
  let state = guideStart;
  for (let seconds = 0; !guideDone(phases, state) && seconds < hand.longest; seconds += chunk / rig.sampleRate) {
    const later = { ...state, elapsed: state.elapsed + chunk / rig.sampleRate };
    const lever = hand.lever(phases, later);
    rig.record(recording, chunk, controlsIn(phases, state, hand.lever(phases, state)), lever);
    const readings: Record<string, number> = {};
    for (const channel of watched) readings[channel] = recording.last(channel) ?? Number.NaN;
    const input = (rig.leverChannel === null ? undefined : recording.last(rig.leverChannel)) ?? lever;
    state = advanceGuide(phases, state, { dt: chunk / rig.sampleRate, input, lever, readings });
  }
  if (state.cut) rig.record(recording, max(1, round(afterCut * rig.sampleRate)), restControls);
  return recording.trace();
}
