import type { Place } from '../quantities/places';

/** A wheel of a vehicle. */
type WheelPlace = Extract<Place, 'fl' | 'fr' | 'rl' | 'rr'>;

/** What a trace of a decoupled unit could not tell, or what was noticed in it. Facts are V, F, ohm, J, m, s, Pa. */
export type DecoupledProblem =
  | { readonly code: 'sensor-not-named' }
  | { readonly code: 'another-sensor' }
  | { readonly code: 'not-awake' }
  | { readonly code: 'power-not-seen' }
  | { readonly code: 'stage-not-reached'; readonly by: number; readonly reached: number }
  | { readonly code: 'no-second-stage'; readonly reached: number }
  | { readonly code: 'follows-before'; readonly wheel: WheelPlace; readonly by: number }
  | { readonly code: 'rate-limited'; readonly channel: string; readonly rate: number }
  | { readonly code: 'one-clock-assumed' }
  | { readonly code: 'wheel-took'; readonly wheel: WheelPlace; readonly seconds: number }
  | { readonly code: 'pressed-slowly'; readonly seconds: number; readonly needed: number }
  | { readonly code: 'never-reached'; readonly channel: string }
  | { readonly code: 'source-not-up'; readonly pressure: number; readonly needed: number }
  | { readonly code: 'source-not-seen-up' }
  | { readonly code: 'foot-not-recorded' }
  | { readonly code: 'more-than-the-foot'; readonly pressure: number; readonly most: number }
  | { readonly code: 'load-not-seen' }
  | { readonly code: 'bank-hardly-fell'; readonly by: number; readonly needed: number }
  | { readonly code: 'charger-still-on' }
  | { readonly code: 'no-bank-on-sheet' }
  | { readonly code: 'no-bank-fitted' }
  | { readonly code: 'bank-drains'; readonly share: number }
  | { readonly code: 'bank-found'; readonly capacitance: number; readonly resistance: number }
  | { readonly code: 'bank-below-least'; readonly voltage: number; readonly least: number }
  | { readonly code: 'bank-not-full'; readonly voltage: number; readonly full: number }
  | { readonly code: 'not-put-to-sleep' }
  | { readonly code: 'zero-not-read-asleep' };
