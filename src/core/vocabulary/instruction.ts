/** A level of the lever's channel, SI. */
interface AtLevel {
  readonly channel: string;
  readonly level: number;
}

/** What to do now. Facts are SI; sentences are made in `sentences.ts`. */
export type Instruction =
  | { readonly code: 'vacuum-off-rest' }
  | ({ readonly code: 'pull-slowly-past' } & AtLevel)
  | ({ readonly code: 'pull-to-hold'; readonly seconds: number } & AtLevel)
  | ({ readonly code: 'ease-to-hold'; readonly seconds: number } & AtLevel)
  | { readonly code: 'hold-there'; readonly seconds: number }
  | { readonly code: 'let-back-slowly'; readonly channel: string }
  | { readonly code: 'let-go'; readonly channel: string }
  | { readonly code: 'rest'; readonly seconds: number }
  | { readonly code: 'shut-input-and-wait'; readonly seconds: number }
  | { readonly code: 'open-vacuum'; readonly seconds: number }
  | { readonly code: 'shut-source-and-wait'; readonly seconds: number }
  | { readonly code: 'compare-vacuum-gauges'; readonly seconds: number }
  | ({ readonly code: 'stroke'; readonly number: number } & AtLevel)
  | { readonly code: 'vent-source-side'; readonly seconds: number }
  | { readonly code: 'start-engine'; readonly seconds: number }
  | { readonly code: 'stop-engine'; readonly seconds: number }
  | { readonly code: 'start-engine-holding'; readonly seconds: number }
  | { readonly code: 'stop-engine-clamped'; readonly seconds: number }
  | { readonly code: 'open-clamp'; readonly seconds: number }
  | { readonly code: 'pump-until-hard'; readonly strokes: number }
  | { readonly code: 'soak'; readonly seconds: number }
  | { readonly code: 'actuate-pump'; readonly seconds: number }
  | { readonly code: 'watch-pump'; readonly seconds: number }
  | { readonly code: 'make-dead'; readonly channel: string }
  | { readonly code: 'make-dead-bleed' }
  | { readonly code: 'join-sensor'; readonly sensor: string; readonly seconds: number }
  | ({ readonly code: 'pump-to'; readonly seconds: number } & AtLevel)
  | { readonly code: 'let-pump-down'; readonly seconds: number }
  | { readonly code: 'charge-bank'; readonly seconds: number }
  | { readonly code: 'charger-off'; readonly seconds: number }
  | { readonly code: 'load-bank'; readonly seconds: number }
  | { readonly code: 'load-off' }
  | { readonly code: 'make-dead-engine-off'; readonly channel: string }
  | { readonly code: 'read-dead'; readonly seconds: number }
  | { readonly code: 'power-on-watch' }
  | { readonly code: 'start-engine-charge' }
  | { readonly code: 'power-on-rest' }
  | { readonly code: 'bleed-slowly-live' }
  | { readonly code: 'bleed-slowly-off' }
  | { readonly code: 'bleed-to-start' }
  | { readonly code: 'shut-bleed-watch' }
  | { readonly code: 'leave-cycling'; readonly times: number }
  | { readonly code: 'power-off' }
  | { readonly code: 'stroke-until-lamp'; readonly channel: string; readonly level: number; readonly every: number }
  | { readonly code: 'key-on'; readonly seconds: number }
  | { readonly code: 'key-off-wait'; readonly seconds: number }
  | { readonly code: 'feed-off' }
  | { readonly code: 'soak-watch'; readonly seconds: number }
  | { readonly code: 'soak-isolated'; readonly seconds: number }
  | { readonly code: 'drive-over-bump' }
  | { readonly code: 'stamp'; readonly channel: string; readonly level: number }
  | { readonly code: 'dead-head'; readonly seconds: number }
  | { readonly code: 'open-dead-head' }
  | { readonly code: 'flow-at-idle'; readonly seconds: number }
  | { readonly code: 'steer-and-hold'; readonly seconds: number }
  | { readonly code: 'raise-supply-slowly'; readonly channel: string; readonly level: number };
