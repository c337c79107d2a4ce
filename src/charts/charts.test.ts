import { everyKind } from '@/core/families';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { toleranceBand } from '@/core/pictures/tolerance-band';
import { unitOf } from '@/core/quantities/measurement-unit';
import { day } from './tokens';
import { overTimeOption } from './over-time';
import { niceCeiling, rideTheLineOption } from './ride-the-line';

const [kind] = everyKind;
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 1420 }, '2026-11-23');
const { unit } = context;
const band = toleranceBand(kind.curve, unit, () => 60e3, context);

interface Drawn {
  readonly id: string;
  readonly data: readonly (readonly number[])[];
}
const seriesOf = (option: { series?: unknown }, id: string) =>
  (option.series as readonly Drawn[]).find((each) => each.id === id);

describe('ride the line', () => {
  it('converts to the shown unit and leaves room for the band', () => {
    const option = rideTheLineOption(
      {
        band,
        pull: [
          [0, 0],
          [1e6, 2e6],
        ],
        wayBack: [],
        now: [1e6, 2e6],
        marks: [],
      },
      {
        input: { title: 'Input', unit: unitOf('bar'), reference: 'gauge' },
        output: { title: 'Output', unit: unitOf('bar'), reference: 'gauge' },
        tokens: day,
        size: 'bench',
      },
    );
    expect(seriesOf(option, 'pull')?.data).toEqual([
      [0, 0],
      [10, 20],
    ]);
    const axis = option.yAxis as { max: number; name: string };
    expect(axis.name).toBe('Output, bar gauge');
    expect(axis.max * 1e5).toBeGreaterThan(Math.max(...band.high));
  });

  it('puts axis ends on round figures', () => {
    expect([0.83, 5.1, 44, 730].map((value) => Number(niceCeiling(value).toPrecision(3)))).toEqual([
      0.85, 5.5, 45, 750,
    ]);
  });

  it('the band follows the vacuum that was there', () => {
    const sagging = toleranceBand(kind.curve, unit, (input) => (input > 1e6 ? 40e3 : 60e3), context);
    const at = (of: typeof band, input: number) => of.high[of.input.findIndex((each) => each >= input)];
    expect(at(sagging, 0.9e6)).toBeCloseTo(at(band, 0.9e6), 0);
    expect(at(sagging, 2e6)).toBeLessThan(at(band, 2e6));
  });
});

describe('over time', () => {
  it('keeps the peaks of a long trace and a strip of its own for a switch', () => {
    const time = Float64Array.from({ length: 100_000 }, (_, i) => i / 200);
    const values = time.map((_, i) => (i === 77_777 ? 9e6 : 1e6));
    const line = (channel: string, unitSymbol: string, column: Float64Array) => ({
      channel,
      title: channel,
      unit: unitOf(unitSymbol),
      reference: 'gauge',
      values: column,
      band: null,
    });
    const option = overTimeOption(
      {
        time,
        lines: [
          line('input_pressure', 'MPa', values),
          line(
            'stop_switch',
            '1',
            values.map(() => 1),
          ),
        ],
        seconds: 10,
        events: [],
      },
      day,
    );
    const drawn = seriesOf(option, 'input_pressure')?.data ?? [];
    expect(drawn.length).toBeLessThan(1500);
    expect(Math.max(...drawn.map((point) => point[1]))).toBe(9);
    expect(option.yAxis).toHaveLength(2);
  });
});
