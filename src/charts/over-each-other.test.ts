import '@/core/families';
import type { ComparedLine } from '@/core/pictures/compared-line';
import { displayUnits } from '@/core/wording/display';
import { chartTokens } from './chart-colours';
import { overEachOtherOption, overEachOtherText, type LineOver } from './over-each-other';

const units = displayUnits('kpa');
const tokens = chartTokens('light');

const strokes = (outputs: readonly number[]): ComparedLine => ({
  x: 'stroke',
  y: 'output_pressure',
  drawn: 'steps',
  path: outputs.map((output, at) => [at + 1, output] as const),
  found: [],
  sound: [],
});
const cycle = (run: number, rest: number): ComparedLine => ({
  x: 'run-time',
  y: 'rest-time',
  drawn: 'points',
  path: [[run, rest]],
  found: [],
  sound: [[9, 400]],
});
const over = (measured: ComparedLine, expected: ComparedLine): LineOver[] => [
  { title: 'Measured', line: measured, look: 'measured' },
  { title: 'With “a leak”', line: expected, look: 'expected' },
];
const series = (lines: LineOver[]) =>
  overEachOtherOption(lines, units, tokens).series as { id: string; step?: string; lineStyle?: { type: unknown } }[];

describe('runs over each other', () => {
  it('draws strokes as steps, what nobody measured dashed, and numbers every stroke', () => {
    const lines = over(strokes([6e6, 5e6, 3e6]), strokes([6e6, 4e6]));
    const [measured, expected] = series(lines);
    expect([measured.step, expected.step]).toEqual(['middle', 'middle']);
    expect(measured.lineStyle?.type).toBe('solid');
    expect(expected.lineStyle?.type).not.toBe('solid');
    const { xAxis } = overEachOtherOption(lines, units, tokens) as {
      xAxis: { max: number; axisLabel: { formatter: (at: number) => string } };
    };
    expect(xAxis.max).toBe(4);
    expect([0, 1, 3, 4].map(xAxis.axisLabel.formatter)).toEqual(['', '1', '3', '']);
  });

  it('draws cycles as points on logarithmic axes that hold them all', () => {
    const lines = over(cycle(8, 300), cycle(3, 40));
    const { xAxis, yAxis } = overEachOtherOption(lines, units, tokens) as Record<
      'xAxis' | 'yAxis',
      { type: string; min: number; max: number }
    >;
    expect([xAxis.type, yAxis.type]).toEqual(['log', 'log']);
    expect(xAxis.min).toBeLessThan(3);
    expect(xAxis.max).toBeGreaterThan(8);
    expect(yAxis.min).toBeLessThan(40);
    expect(yAxis.max).toBeGreaterThan(400);
  });

  it('says in words what a line cannot, with the figures of strokes and cycles', () => {
    expect(overEachOtherText('Reserve', over(strokes([6e6, 5e6]), strokes([6e6, 4e6])), units)).toBe(
      'Reserve: measured (circles) 6.00, 5.00 MPa; with “a leak” (diamonds) 6.00, 4.00 MPa.',
    );
    expect(overEachOtherText('Cycle', over(cycle(8, 300), cycle(3, 40)), units)).toMatch(
      /8\.00 s and 300 .*sound \(a square\) 9\.00 s and 400/,
    );
  });
});
