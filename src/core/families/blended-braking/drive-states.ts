import type { Samples } from '../../traces/own-samples';
import { longestBridged, meanInterval } from '../../traces/time-mean';

const { abs } = Math;

/** Speeds are looked at this far apart at most, s; a fall by more than this (m/s) and faster than that (m/s2) is no braking. */
const longestStep = 0.5;
const fallOf = 10 / 3.6;
const fasterThan = 20;
/** A dropout is over once the speed is back within this of where it was, m/s, and it lasts no longer than this, s. */
const backWithin = fallOf;
const longestDropout = 3;

/** A stretch in which the speed fell away and came back, s. */
export interface SpeedDropout {
  readonly from: number;
  readonly to: number;
}

/** Jumps of the speed that no vehicle makes: it falls away, or leaps up and comes back. */
export function speedDropouts({ time, value }: Samples): readonly SpeedDropout[] {
  const found: SpeedDropout[] = [];
  for (let i = 1; i < time.length; i++) {
    const dt = time[i] - time[i - 1];
    const was = value[i - 1];
    const jump = abs(was - value[i]);
    if (!(jump > fallOf && jump > fasterThan * dt && dt <= longestStep)) continue;
    let back = i;
    while (back + 1 < time.length && abs(was - value[back]) > backWithin && time[back] - time[i] < longestDropout)
      back++;
    // A speed that leaps up and stays there has come back from where nobody saw it go.
    if (value[i] > was && abs(was - value[back]) > backWithin) continue;
    found.push({ from: time[i - 1], to: time[back] });
    i = back;
  }
  return found;
}

/** The speed without what fell away: straight from where it left to where it came back. */
export function bridged(samples: Samples, dropouts: readonly SpeedDropout[]): Samples {
  if (dropouts.length === 0) return samples;
  const keep = new Uint8Array(samples.time.length).fill(1);
  let next = 0;
  for (let i = 0; i < keep.length; i++) {
    while (next < dropouts.length && samples.time[i] >= dropouts[next].to) next++;
    if (next < dropouts.length && samples.time[i] > dropouts[next].from) keep[i] = 0;
  }
  return { time: samples.time.filter((_, i) => keep[i] === 1), value: samples.value.filter((_, i) => keep[i] === 1) };
}

/** A state that is held between its samples: how long it was on, and how long it was known at all, s. */
export function timeOn({ time, value }: Samples): { readonly on: number; readonly known: number } {
  let [on, known] = [0, 0];
  const longest = longestBridged({ time });
  for (let i = 0; i + 1 < time.length; i++) {
    const dt = time[i + 1] - time[i];
    if (dt > longest) continue;
    known += dt;
    if (value[i] > 0.5) on += dt;
  }
  return { on, known };
}

/**
 * Longest time (s) that two switches disagree, each held between its samples, and what that is known to: a switch may have gone at any
 * moment between two samples of its own. Where one of them is not recorded nothing is counted.
 */
export function longestDisagreement(
  one: Samples,
  other: Samples,
): { readonly seconds: number; readonly standard: number; readonly at: number | null } {
  const longestHold = [one, other].map(longestBridged);
  let longest = { seconds: 0, at: null as number | null };
  let since: number | null = null;
  // Both are walked along together; `a` and `b` are the samples that hold.
  let [a, b] = [-1, -1];
  while (a + 1 < one.time.length || b + 1 < other.time.length) {
    const [nextOne, nextOther] = [one.time[a + 1] ?? Infinity, other.time[b + 1] ?? Infinity];
    const t = Math.min(nextOne, nextOther);
    if (nextOne <= t) a++;
    if (nextOther <= t) b++;
    const held = a >= 0 && b >= 0 && t - one.time[a] <= longestHold[0] && t - other.time[b] <= longestHold[1];
    const disagree = held && one.value[a] > 0.5 !== other.value[b] > 0.5;
    if (disagree) since ??= t;
    if (since !== null && held && t - since > longest.seconds) longest = { seconds: t - since, at: since };
    if (!disagree) since = null;
  }
  return { ...longest, standard: Math.hypot(meanInterval(one), meanInterval(other)) / Math.sqrt(12) };
}
