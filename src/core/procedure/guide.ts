import type { DutyLimit, GuidePhase } from './guide-phase';
import { type BenchControls, restControls } from '../physics/bench-controls';

const { abs, max, min } = Math;

/** Where a guided step stands. Plain data, so that it survives a restart. */
export interface GuideState {
  readonly phase: number;
  /** s since the phase began. */
  readonly elapsed: number;
  /** s during which the phase's held condition has been true without a break. */
  readonly held: number;
  /** Lever at the start of the phase, SI. */
  readonly leverFrom: number;
  /** How often the phase's switch has gone the way that is waited for, and where it was last seen. */
  readonly switched: number;
  readonly last: number | null;
  /** s that what a duty limit watches has gone on without a break. */
  readonly duty: number;
  /** The duty limit that ended the step; null while none has. */
  readonly cut: DutyLimit | null;
}

export const guideStart: GuideState = {
  phase: 0,
  elapsed: 0,
  held: 0,
  leverFrom: 0,
  switched: 0,
  last: null,
  duty: 0,
  cut: null,
};

/** Whether every phase is done. */
export function guideDone(phases: readonly GuidePhase[], state: GuideState): boolean {
  return state.phase >= phases.length;
}

/** Controls of the bench in a phase, with the lever where `lever` says; at rest once a duty limit has cut the step. */
export function controlsIn(phases: readonly GuidePhase[], state: GuideState, lever: number): BenchControls {
  if (state.cut) return restControls;
  const phase = phases[min(state.phase, phases.length - 1)];
  return { ...restControls, ...phase?.controls, lever };
}

/** Lever position when the rig pulls by itself: an even move over the phase's seconds, or stroke after stroke. */
export function leverByItself(phases: readonly GuidePhase[], state: GuideState): number {
  if (guideDone(phases, state)) return phases.length > 0 && !state.cut ? phases[phases.length - 1].lever.to : 0;
  const { to, seconds, every } = phases[state.phase].lever;
  if (every !== undefined) {
    const at = state.elapsed % every;
    return to * max(0, min(1, at / seconds, (every - at) / seconds - 1));
  }
  const share = seconds > 0 ? min(1, state.elapsed / seconds) : 1;
  return state.leverFrom + (to - state.leverFrom) * share;
}

/** What the guide looks at, SI. */
export interface GuideNow {
  readonly dt: number;
  /** Reading of the lever's channel. */
  readonly input: number;
  readonly lever: number;
  /** Readings by channel; those a guide waits for must be there. */
  readonly readings: Readonly<Record<string, number>>;
}

/**
 * Moves the guide on by `dt` seconds given the latest readings (SI). Phases end on what is read, whoever moves the
 * lever; a rig that pulls by itself also finishes its move first. A duty limit that is used up ends the step.
 */
export function advanceGuide(phases: readonly GuidePhase[], state: GuideState, now: GuideNow): GuideState {
  if (guideDone(phases, state)) return state;
  const { end, duty: limit } = phases[state.phase];
  const later: GuideState = {
    ...state,
    elapsed: state.elapsed + now.dt,
    held: isHeld(end, now.input) ? state.held + now.dt : 0,
    ...switchedOn(end, state, now),
    duty: limit && now.readings[limit.channel] > 0.5 ? state.duty + now.dt : 0,
  };
  if (limit && later.duty >= limit.seconds) return { ...later, phase: phases.length, cut: limit };
  if (!isOver(end, later, now)) return later;
  return { ...guideStart, phase: state.phase + 1, leverFrom: now.lever, duty: later.duty };
}

/**
 * A stretch of `seconds` in which nobody looked: whatever a duty limit was counting is taken to have gone on through it. Nothing else of
 * the guide moves.
 */
export function unseen(phases: readonly GuidePhase[], state: GuideState, seconds: number): GuideState {
  const limit = phases[state.phase]?.duty;
  if (!limit || state.duty === 0) return state;
  const duty = state.duty + seconds;
  return duty < limit.seconds ? { ...state, duty } : { ...state, duty, phase: phases.length, cut: limit };
}

function isHeld(end: GuidePhase['end'], input: number): boolean {
  return end.kind === 'input-held' && abs(input - end.level) <= end.tolerance;
}

/** A stroke is one that went to this share of its level, and came back to that. */
const pressedShare = 0.6;
const letGoShare = 0.2;

function switchedOn(end: GuidePhase['end'], state: GuideState, now: GuideNow): Pick<GuideState, 'switched' | 'last'> {
  if (end.kind === 'strokes') {
    // Pressed well on, then let well back: between the two it is as it was.
    const share = now.input / end.level;
    const at = share >= pressedShare ? 1 : share <= letGoShare ? 0 : state.last;
    return { switched: state.switched + (state.last === 1 && at === 0 ? 1 : 0), last: at };
  }
  if (end.kind !== 'switched') return { switched: 0, last: null };
  const at = now.readings[end.channel] > 0.5 ? 1 : 0;
  const went = state.last !== null && at !== state.last && at === end.to;
  return { switched: state.switched + (went ? 1 : 0), last: at };
}

function isOver(end: GuidePhase['end'], state: GuideState, { input, readings }: GuideNow): boolean {
  switch (end.kind) {
    case 'seconds':
      return state.elapsed >= end.seconds;
    case 'input-above':
      return input >= end.level;
    case 'input-below':
      return input <= end.level;
    case 'input-held':
      return state.held >= end.seconds;
    case 'reading': {
      const reading = readings[end.channel];
      return state.elapsed >= end.atMost || (end.side === 'above' ? reading >= end.level : reading <= end.level);
    }
    case 'strokes':
      return state.switched >= end.times;
    case 'switched':
      return state.elapsed >= end.atMost || state.switched >= end.times;
  }
}

/** Longest time (s) a guide takes by itself, for a picture's time axis. */
export function guideSeconds(phases: readonly GuidePhase[]): number {
  return phases.reduce((sum, { end, lever }) => {
    switch (end.kind) {
      case 'seconds':
        return sum + end.seconds;
      case 'strokes':
        return sum + end.times * end.every;
      case 'reading':
      case 'switched':
        return sum + end.atMost;
      case 'input-held':
        return sum + lever.seconds + end.seconds;
      default:
        return sum + lever.seconds;
    }
  }, 0);
}
