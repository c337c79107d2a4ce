/** What a trace of supplies, grounds, sleep and sensors could not tell, or what was noticed in it. Facts are SI: V, A, Ω. */
export type ElectricalProblem =
  | { readonly code: 'battery-missing'; readonly voltage: number }
  | { readonly code: 'current-too-small'; readonly current: number; readonly needed: number }
  | { readonly code: 'feed-open'; readonly voltage: number }
  | { readonly code: 'ground-in-feed' }
  /** A voltage (V) that cannot drive the current (A) that flowed meanwhile. */
  | { readonly code: 'lead-off'; readonly channel: string; readonly voltage: number; readonly current: number }
  /** A drop as it was read (V) at the current that flowed, A; what is judged is what it comes to at the rated one. */
  | {
      readonly code: 'drop-as-read';
      readonly part: 'feed' | 'ground';
      readonly drop: number;
      readonly current: number;
      readonly rated: number;
    }
  | { readonly code: 'resistance-of'; readonly part: 'feed' | 'ground'; readonly ohm: number }
  | { readonly code: 'weak-supply'; readonly voltage: number; readonly rated: number }
  | { readonly code: 'drop-negative'; readonly part: 'feed' | 'ground'; readonly by: number }
  | { readonly code: 'current-negative'; readonly channel: string; readonly current: number }
  | { readonly code: 'tracks-swapped' }
  | { readonly code: 'meter-not-seen-alive'; readonly channel: string }
  | { readonly code: 'key-still-on' }
  | { readonly code: 'key-off-assumed' }
  | { readonly code: 'sensor-not-supplied'; readonly voltage: number }
  | { readonly code: 'sensor-supply-assumed'; readonly voltage: number }
  | { readonly code: 'stroke-too-short'; readonly reached: number; readonly needed: number }
  | { readonly code: 'track-without-line' }
  | { readonly code: 'track-stays-off'; readonly times: number }
  | { readonly code: 'sum-worst-at'; readonly channel: string; readonly at: number }
  | { readonly code: 'sampled-too-slowly'; readonly rate: number; readonly needed: number };

const electricalCodes: Readonly<Record<ElectricalProblem['code'], true>> = {
  'battery-missing': true,
  'current-too-small': true,
  'feed-open': true,
  'ground-in-feed': true,
  'lead-off': true,
  'drop-as-read': true,
  'resistance-of': true,
  'weak-supply': true,
  'drop-negative': true,
  'current-negative': true,
  'tracks-swapped': true,
  'meter-not-seen-alive': true,
  'key-still-on': true,
  'key-off-assumed': true,
  'sensor-not-supplied': true,
  'sensor-supply-assumed': true,
  'stroke-too-short': true,
  'track-without-line': true,
  'track-stays-off': true,
  'sum-worst-at': true,
  'sampled-too-slowly': true,
};

/** Whether a problem is of wires, supplies and sensors. */
export function isElectricalProblem(problem: { readonly code: string }): problem is ElectricalProblem {
  return Object.hasOwn(electricalCodes, problem.code);
}
