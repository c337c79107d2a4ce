import { seaLevelPressure, type Ambient } from '../../quantities/standard-atmosphere';
import type { SheetField } from '../../contract/sheet-field';

/** What makes the vacuum: an engine's manifold or a pump. */
export type SourceKind = 'manifold' | 'pump';

/**
 * Vacuum (Pa) in today's air of a source that gives `seaLevelVacuum` (Pa) at the sea: an idling engine's manifold
 * keeps its absolute pressure, a pump keeps its ratio of ultimate to ambient pressure. Never less than none.
 */
export function restatedSource(seaLevelVacuum: number, kind: SourceKind, ambient: Ambient): number {
  const local = ambient.pressure;
  const vacuum =
    kind === 'manifold' ? local - (seaLevelPressure - seaLevelVacuum) : (seaLevelVacuum / seaLevelPressure) * local;
  return Math.max(0, vacuum);
}

/** What makes the vacuum, as a sheet's field offers it. */
export const sourceChoices: SheetField['choices'] = [
  { value: 'manifold', title: 'Engine’s manifold' },
  { value: 'pump', title: 'Pump' },
];
