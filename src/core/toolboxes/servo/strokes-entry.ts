import { onGauge } from '../../dials/asked';
import type { AskedReading, AskedRows, TakenReadings } from '../../dials/from-readings';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

/** How a stroke felt, in the order in which it is offered. */
const feels = ['helped', 'half helped', 'hard'] as const;

/** Strokes as a foot feels them, one row each, with what gauges show before each where there are any. */
export function strokeRows(beside: readonly AskedReading[] = []): AskedRows {
  return {
    least: 1,
    columns: [
      { id: 'felt', title: 'Stroke', as: 'state', by: 'foot', choices: feels },
      ...beside.map((each) => ({ ...each, optional: true as const })),
    ],
  };
}

/** The gauge of what strokes draw on, before each of them. */
export const beforeStroke = (id: string, channel: string, title: string): AskedReading => onGauge(id, channel, title);

export interface StrokesCounted {
  /** Those that helped for certain. */
  readonly count: number;
  /** Why there may be more: one that helped by half may count, or none was hard yet. */
  readonly open: AnalysisProblem | null;
}

/** Strokes that were helped, from the first to the one that was not. */
export function countStrokes(
  rows: TakenReadings['rows'],
  notUsedUp: (strokes: number) => AnalysisProblem,
): StrokesCounted {
  const felt = rows.map((row) => feels[row.felt]);
  const hard = felt.indexOf('hard');
  const before = hard < 0 ? felt : felt.slice(0, hard);
  const halves = before.filter((each) => each === 'half helped').length;
  const open: AnalysisProblem | null =
    hard < 0 ? notUsedUp(rows.length) : halves > 0 ? { code: 'half-helped', strokes: halves } : null;
  return { count: before.length - halves, open };
}
