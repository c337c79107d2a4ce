/**
 * One control of the bench: the lever; vacuum source and its valves; the engine, the electrical supply, a bleed valve
 * (opening 0 to 1), the levelling's shut-off, a pump's dead end, the steering wheel held over, a commanded pump.
 */
export type ControlId =
  | 'lever'
  | 'source'
  | 'isolated'
  | 'input-shut'
  | 'unit-shut'
  | 'engine'
  | 'actuate'
  | 'power'
  | 'bleed'
  | 'levelling-shut'
  | 'dead-head'
  | 'steer'
  | (keyof ControlWords & string);

/** Controls that a family brings: it declares them here (by module augmentation) and lists them in its rows. */
export interface ControlWords {}

/**
 * Settings of the bench or the vehicle: lever in SI of the driving channel; everything else 0 or 1 unless its name
 * says more.
 */
export type BenchControls = Readonly<Record<ControlId, number>>;

// What families bring joins these when they register.
const joined: Record<string, number> = {
  lever: 0,
  source: 0,
  isolated: 0,
  'input-shut': 0,
  'unit-shut': 0,
  engine: 0,
  actuate: 0,
  power: 0,
  bleed: 0,
  'levelling-shut': 0,
  'dead-head': 0,
  steer: 0,
};

/** Bench at rest: lever home, source shut, everything off and open. */
export const restControls = joined as BenchControls;

/** Adds a family's controls, off at rest; the registry does. */
export function joinControls(ids: readonly string[]): void {
  for (const id of ids) joined[id] = 0;
}
