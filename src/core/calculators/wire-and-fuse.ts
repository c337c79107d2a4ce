/** Copper at 20 °C, Ω·m, and what it gains with each kelvin. Source: IEC 60028. */
const copperAt20 = 1.724e-8;
const perKelvin = 0.003_93;

/** Conductors that are sold, mm2, with what each carries at 30 °C as a single cable in free air, A; a workshop may bring its own table. */
export const defaultAmpacities: readonly (readonly [number, number])[] = [
  [0.5, 9],
  [0.75, 12],
  [1, 16],
  [1.5, 20],
  [2.5, 27],
  [4, 36],
  [6, 47],
  [10, 65],
  [16, 87],
  [25, 115],
];

/** Fuses that are sold, A. */
export const standardFuses: readonly number[] = [1, 2, 3, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 80];

/** A fuse carries its average load with so much to spare. */
const spare = 1.25;
/** A peak that nobody averaged is this share of itself on average. */
export const averageShare = 0.7;
/** Insulation is good to this, and ampacities are stated for this, °C. */
const hottest = 105;
const statedAt = 30;

/** Resistivity of copper at a temperature (°C), Ω·m. */
export function copperResistivity(temperatureC: number): number {
  return copperAt20 * (1 + perKelvin * (temperatureC - 20));
}

/** What a conductor carries at a temperature (°C) of which it carries `at30` A at 30 °C: less the hotter it is around it. */
export function ampacityAt(at30: number, temperatureC: number): number {
  return temperatureC <= statedAt ? at30 : at30 * Math.sqrt(Math.max(0, hottest - temperatureC) / (hottest - statedAt));
}

/** What a feed and its ground have to carry, and what they may lose. */
export interface WiringAsked {
  /** Peak current, A. */
  readonly current: number;
  /** Average current, A; null where nobody knows it. */
  readonly average: number | null;
  /** One way, m. */
  readonly length: number;
  /** What the whole loop may lose at the peak, V, half on each side; and what each side may lose by itself. */
  readonly drop: number;
  readonly feedDropMax: number;
  readonly groundDropMax: number;
  /** Hottest place of the run, °C. */
  readonly temperatureC: number;
}

export interface WiringPlan {
  readonly kind: 'plan';
  /** What the drop asks for, mm2, and the standard size that is taken. */
  readonly neededArea: number;
  readonly area: number;
  /** Of the size that is taken, at the temperature, A. */
  readonly ampacity: number;
  readonly fuse: number;
  /** Average load that the fuse is chosen for, A; whether it was taken as a share of the peak. */
  readonly average: number;
  readonly averageAssumed: boolean;
  /** Lost at the peak over the whole loop and on each side, V. */
  readonly loss: number;
  readonly lossEachSide: number;
  /** What decided the size. */
  readonly decidedBy: 'drop' | 'fuse';
}

export type Wiring =
  | WiringPlan
  /** No conductor that is sold will do: none is thick enough, or none carries a fuse that the load needs. */
  | { readonly kind: 'none'; readonly because: 'drop' | 'fuse' | 'too-hot'; readonly neededArea: number };

/** Area (m2) of each conductor of a loop that loses `drop` (V) at `current` (A): A = 2·L·I·rho(T)/ΔU, L one way (m). */
export function areaForDrop(current: number, length: number, drop: number, temperatureC: number): number {
  return (2 * length * current * copperResistivity(temperatureC)) / drop;
}

/**
 * Conductor and fuse for a feed with its ground: the next standard size above what the drop asks for, each side also within its own limit;
 * the smallest standard fuse that carries the average with a quarter to spare and does not exceed what the conductor carries at that
 * temperature. Where both cannot hold the conductor grows.
 */
export function planWiring(asked: WiringAsked, ampacities = defaultAmpacities): Wiring {
  const { current, length, temperatureC } = asked;
  const drop = Math.min(asked.drop, 2 * asked.feedDropMax, 2 * asked.groundDropMax);
  const neededArea = areaForDrop(current, length, drop, temperatureC) * 1e6;
  if (temperatureC >= hottest) return { kind: 'none', because: 'too-hot', neededArea };
  const average = asked.average ?? averageShare * current;
  const fuse = standardFuses.find((each) => each >= spare * average);
  const sizes = ampacities.filter(([area]) => area >= neededArea);
  if (sizes.length === 0) return { kind: 'none', because: 'drop', neededArea };
  if (fuse === undefined) return { kind: 'none', because: 'fuse', neededArea };
  const at = sizes.findIndex(([, at30]) => ampacityAt(at30, temperatureC) >= fuse);
  if (at < 0) return { kind: 'none', because: 'fuse', neededArea };
  const [area, at30] = sizes[at];
  const loss = (2 * length * current * copperResistivity(temperatureC)) / (area * 1e-6);
  return {
    kind: 'plan',
    neededArea,
    area,
    ampacity: ampacityAt(at30, temperatureC),
    fuse,
    average,
    averageAssumed: asked.average === null,
    loss,
    lossEachSide: loss / 2,
    decidedBy: at === 0 ? 'drop' : 'fuse',
  };
}
