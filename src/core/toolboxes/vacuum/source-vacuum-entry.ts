import { onGauge } from '../../dials/asked';
import { entryFromReadings } from '../../dials/from-readings';
import { differenceComponents, differenceResolution, expandedUncertainty } from '../../instruments/uncertainty';
import type { Limit } from '../../procedure/limit';
import type { StepContext } from '../../procedure/step-context';
import type { TypedEntry } from '../../procedure/typed-entry';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

/** A hose that takes less than this takes nothing worth a word, Pa. */
const leastTaken = 2_000;

/** By how much one gauge read more at the engine than at the unit (Pa), where it clearly did; else nothing. */
function takenBy(atEngine: number | undefined, atUnit: number | undefined, context: StepContext<unknown>): number {
  if (atEngine === undefined || atUnit === undefined) return 0;
  const gauge = context.instruments.get('supply_vacuum');
  const value = atEngine - atUnit;
  const components = gauge
    ? [differenceResolution(gauge), ...differenceComponents(gauge, atUnit, atEngine, context.date)]
    : [];
  return value > Math.max(leastTaken, expandedUncertainty({ value, components })) ? value : 0;
}

/** Entry of a source: the vacuum at the unit at idle and while held, and at the engine where it was read there too: the difference is the hose. */
export function sourceVacuumEntry<Unit>(least: (context: StepContext<Unit>) => readonly Limit[]): TypedEntry<Unit> {
  return entryFromReadings<Unit>({
    characteristics: () => ['idle-vacuum', 'held-vacuum'],
    once: (context) => {
      const low = least(context)[0]?.low ?? null;
      const expected = low === null ? null : { low, high: Infinity };
      return [
        onGauge('idle-vacuum', 'supply_vacuum', 'At the unit, at idle', {
          expected,
          hint: 'At the unit’s end of the hose',
        }),
        onGauge('held-vacuum', 'supply_vacuum', 'At the unit, pedal held', { expected, hint: 'After two strokes' }),
        onGauge('engine-idle', 'supply_vacuum', 'At the engine, at idle', { optional: true, hint: 'The same gauge' }),
        onGauge('engine-held', 'supply_vacuum', 'At the engine, pedal held', { optional: true }),
      ];
    },
    reckon: ({ once }, context) => {
      const idle = takenBy(once['engine-idle'], once['idle-vacuum'], context);
      const held = takenBy(once['engine-held'], once['held-vacuum'], context);
      const notes: AnalysisProblem[] = idle > 0 || held > 0 ? [{ code: 'hose-takes', idle, held }] : [];
      return {
        figures: ({ once: read }) => ({ 'idle-vacuum': read['idle-vacuum'], 'held-vacuum': read['held-vacuum'] }),
        also: { notes },
      };
    },
  });
}
