import { conditionWith } from '../contract/model';
import { everyKind, kindNamed } from '../families';
import { observedTrace } from '../rig/observe';
import type { AnyKind } from '../contract/kind';
import { exampleBench } from '../../../tests/support/varied-bench';
import { comparedLines, onSameAxes, type ComparedLine } from './compared-line';

/** A step of an example as true gauges record it, with a fault or without, in every way it can be drawn. */
function linesOf(kind: AnyKind, id: string, faults: readonly { id: string; severity: number }[] = []) {
  const plan = kind.plans.find((each) => each.steps.includes(id))!;
  const { context } = exampleBench(kind, plan.id);
  const step = kind.steps.find((each) => each.id === id)!;
  if (step.kind !== 'measured') throw new Error(`${id} is not measured`);
  const condition: unknown = conditionWith(kind.model, context.unit, faults);
  const trace = observedTrace(kind, step, context, { unit: context.unit, condition })!;
  return comparedLines({ step, trace, context, analysis: step.analyse(trace, context) });
}

const line = (y: string, drawn: ComparedLine['drawn'] = 'line'): ComparedLine => ({
  x: 'time',
  y,
  drawn,
  path: [[0, 1]],
  found: [],
  sound: [],
});

describe('a run as it is drawn over another', () => {
  it('strokes are steps: a reserve that is lost earlier gives less from there on', () => {
    const kind = kindNamed('vacuum-inline');
    const [sound] = linesOf(kind, 'reserve');
    const [leaking] = linesOf(kind, 'reserve', [{ id: 'check-valve-leak', severity: 0.9 }]);
    expect([sound.x, sound.drawn, leaking.drawn]).toEqual(['stroke', 'steps', 'steps']);
    expect(sound.path.map(([x]) => x)).toEqual(sound.path.map((_, at) => at + 1));
    expect(leaking.path[1][1]).toBeLessThan(0.9 * sound.path[1][1]);
  });

  it('cycles are points: with half of its gas gone a pump runs and rests more briefly', () => {
    const kind = kindNamed('motor-pump-boost');
    const [sound] = linesOf(kind, 'rest-cycle');
    const [low] = linesOf(kind, 'rest-cycle', [{ id: 'accumulator-precharge-low', severity: 0.7 }]);
    expect([sound.x, sound.y, sound.drawn]).toEqual(['run-time', 'rest-time', 'points']);
    // The map says of a sound one what the bench measures of it.
    expect(Math.abs(Math.log(sound.path[0][1] / sound.sound[0][1]))).toBeLessThan(0.1);
    expect(low.path[0][0]).not.toBeCloseTo(sound.path[0][0], 0);
    expect(low.path[0][1]).toBeLessThan(0.9 * sound.path[0][1]);
  });

  it('the knee that was found stands on the line of a charge', () => {
    const kind = kindNamed('motor-pump-boost');
    const [sound] = linesOf(kind, 'charge-from-empty');
    const [low] = linesOf(kind, 'charge-from-empty', [{ id: 'accumulator-precharge-low', severity: 0.7 }]);
    expect(sound.x).toBe('time');
    expect(sound.found).toHaveLength(1);
    expect(low.found[0][1]).toBeLessThan(0.8 * sound.found[0][1]);
    const nearest = Math.min(
      ...sound.path.map(([x, y]) => Math.hypot(x - sound.found[0][0], (y - sound.found[0][1]) / 1e6)),
    );
    expect(nearest).toBeLessThan(1);
  });

  it.each(everyKind.map((kind) => [kind.sheet.example.name, kind] as const))(
    '%s: its face can be drawn, in numbers',
    (_name, kind) => {
      const lines = linesOf(kind, kind.plans[0].face);
      expect(lines.length).toBeGreaterThan(0);
      for (const { path, found } of lines)
        for (const point of [...path, ...found]) expect(point.every(Number.isFinite)).toBe(true);
    },
  );
});

describe('several runs on the same axes', () => {
  it('takes the first way that all can be drawn in', () => {
    const strokes = line('output_pressure', 'steps');
    const over = line('supply_vacuum');
    expect(onSameAxes([[strokes, over], [over], [strokes, over]])).toEqual([over, over, over]);
    expect(onSameAxes([[strokes, over], [], [strokes, over]])).toEqual([strokes, null, strokes]);
    expect(onSameAxes([[], []])).toEqual([null, null]);
  });
});
