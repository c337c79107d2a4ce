import type { StepContext } from '../procedure/step-context';
import type { TypedValues } from '../procedure/typed-entry';
import { readingComponents } from '../instruments/uncertainty';
import { onGauge } from './asked';
import type { AskedReading } from './from-readings';

/** How a foot's force was known, in the order in which it is offered. */
const ways = ['by a gauge at the pedal', 'by feel, as a share of my weight', 'not known'] as const;
/** A force that was felt is known to about this, one sigma, as a share. */
const feltShare = 0.15;
/** A foot that nobody measured pressed with something between these, N. */
const anyFoot = [50, 500] as const;

/** The least and the most that a foot may have pressed with, N: of one that is known to a standard uncertainty, or not at all. */
export function footRange(force: number | null, standard: number): readonly [number, number] {
  return force === null ? anyFoot : [Math.max(1, force - 2 * standard), force + 2 * standard];
}

/** The foot of a push that is held twice: what it pressed with, and how that is known. */
export const footAsked: readonly AskedReading[] = [
  { id: 'foot-known', title: 'The foot’s force is known', as: 'state', by: 'foot', optional: true, choices: ways },
  onGauge('foot', 'pedal_force', 'Foot, the same both times', { optional: true }),
];

/** A foot's force (N) with its standard uncertainty; `null` where nobody knows it. */
export interface FootRead {
  readonly force: number;
  readonly standard: number;
}

export function footRead(read: TypedValues, { instruments, date }: StepContext<unknown>): FootRead | null {
  const { foot, 'foot-known': way } = read;
  if (foot === undefined || ways[way] === 'not known') return null;
  const gauge = instruments.get('pedal_force');
  if (ways[way] === 'by feel, as a share of my weight') return { force: foot, standard: feltShare * foot };
  const parts = gauge ? readingComponents(gauge, foot, date).map((part) => part.standard) : [];
  return { force: foot, standard: Math.hypot(...parts) };
}
