/** What a rule asks of a stop with the assist gone, SI. Distance: d ≤ buildUp·v + perSpeedSquared·v², v in m/s, d in m. */
export interface StopRule {
  readonly category: 'light' | 'own';
  /** Where it stands; for people, on the screen and on paper. */
  readonly source: string;
  /** Speed that the stop begins from, m/s. */
  readonly speed: number;
  /** m/s2 */
  readonly decelerationLeast: number;
  /** s */
  readonly buildUp: number;
  /** s2/m */
  readonly perSpeedSquared: number;
  /** N */
  readonly pedalForceMost: number;
}

const kilometresPerHour = 1 / 3.6;

/** A rule as it is written: v in km/h, d ≤ A·v + B·v² in m. */
export interface RuleAsWritten {
  readonly speedKmh: number;
  readonly decelerationMPerS2: number;
  readonly distanceA: number;
  readonly distanceB: number;
  readonly pedalForceN: number;
  readonly source: string;
}

function ruleFrom(category: StopRule['category'], written: RuleAsWritten): StopRule {
  return {
    category,
    source: written.source,
    speed: written.speedKmh * kilometresPerHour,
    decelerationLeast: written.decelerationMPerS2,
    buildUp: written.distanceA / kilometresPerHour,
    perSpeedSquared: written.distanceB / kilometresPerHour ** 2,
    pedalForceMost: written.pedalForceN,
  };
}

/** Light vehicles, assist failed: UN R13-H and the North American 135 rules agree on these figures; local code decides. */
export const lightRule: StopRule = ruleFrom('light', {
  speedKmh: 100,
  decelerationMPerS2: 2.44,
  distanceA: 0.1,
  distanceB: 0.0158,
  pedalForceN: 500,
  source: 'Light vehicles: UN R13-H, North American 135; the local code decides',
});

/** What a workshop wrote down of the rule that its vehicle is under. */
export type OwnRule = { readonly [Field in keyof RuleAsWritten]?: RuleAsWritten[Field] };

export type RuleFound =
  | { readonly kind: 'rule'; readonly rule: StopRule }
  /** An own rule is whole or it is none: nothing is ever filled in from another. */
  | { readonly kind: 'incomplete'; readonly missing: readonly (keyof RuleAsWritten)[] };

const written = ['speedKmh', 'decelerationMPerS2', 'distanceA', 'distanceB', 'pedalForceN', 'source'] as const;

const isWhole = (own: OwnRule): own is RuleAsWritten => missingOf(own).length === 0;

function missingOf(own: OwnRule): readonly (keyof RuleAsWritten)[] {
  return written.filter((field) => own[field] === undefined || own[field] === '');
}

/** The rule that a vehicle of a category is under. */
export function ruleOf(category: StopRule['category'], own: OwnRule): RuleFound {
  if (category === 'light') return { kind: 'rule', rule: lightRule };
  if (isWhole(own)) return { kind: 'rule', rule: ruleFrom('own', own) };
  return { kind: 'incomplete', missing: missingOf(own) };
}

/** Longest way that a rule allows from its own speed, m. */
export function distanceAllowed({ speed, buildUp, perSpeedSquared }: StopRule): number {
  return buildUp * speed + perSpeedSquared * speed ** 2;
}
