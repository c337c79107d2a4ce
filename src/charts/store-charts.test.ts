import { forecastSphere } from '@/core/toolboxes/store/model/sphere-life';
import type { PredictedStaircase, CycleMap } from '@/core/procedure/expected';
import { unitOf } from '@/core/quantities/measurement-unit';
import { day } from './tokens';
import { runRestOption, runRestText } from './run-rest-map';
import { sphereLifeOption } from './sphere-life-chart';
import { staircaseOption, staircaseText } from './staircase';

interface Drawn {
  readonly id?: string;
  readonly data?: readonly unknown[];
}

const drawn = (option: { series?: unknown }) => option.series as readonly Drawn[];
const named = (option: { series?: unknown }, id: string) => drawn(option).find((each) => each.id === id);

/** Every figure of an option that a chart would have to place. */
function figuresOf(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  if (Array.isArray(value)) return value.flatMap(figuresOf);
  if (value !== null && typeof value === 'object') return Object.values(value).flatMap(figuresOf);
  return [];
}

const point = (run: number, rest: number) => ({ run, rest, cutIn: 14e6, cutOut: 17.5e6 });

const map: CycleMap = {
  circuit: '',
  title: 'Store',
  sound: point(12, 900),
  faults: [
    { id: 'internal-leak', title: 'internal leak', points: [point(12, 900), point(13, 300), point(15, 60)] },
    { id: 'pump-worn', title: 'weak pump', points: [point(12, 900), point(18, 880), point(40, 860)] },
  ] as CycleMap['faults'],
};

const cycle = {
  circuit: '',
  run: 13.4,
  runStandard: 0.1,
  rest: 280,
  restStandard: 3,
  restOpen: false,
  cutIn: 14e6,
  cutOut: 17.5e6,
};

describe('map of run and rest', () => {
  it('shows everything there is inside its axes', () => {
    const option = runRestOption({ maps: [map], measured: [cycle] }, day);
    const axes = { x: option.xAxis as { min: number; max: number }, y: option.yAxis as { min: number; max: number } };
    for (const each of [map.sound, cycle, ...map.faults.flatMap((fault) => fault.points)]) {
      expect(each.run).toBeGreaterThan(axes.x.min);
      expect(each.run).toBeLessThan(axes.x.max);
      expect(each.rest).toBeGreaterThan(axes.y.min);
      expect(each.rest).toBeLessThan(axes.y.max);
    }
    expect(figuresOf(option.series).every(Number.isFinite)).toBe(true);
  });

  it('draws each fault from slight to severe, and the reading on top of them', () => {
    const option = runRestOption({ maps: [map], measured: [cycle] }, day);
    expect(named(option, 'internal-leak')?.data).toEqual([
      [12, 900],
      [13, 300],
      [15, 60],
    ]);
    expect(drawn(option).at(-1)?.id).toBe('measured');
    expect(JSON.stringify(named(option, 'measured')?.data)).toContain('13.4 s on, 280 s off');
  });

  it('tells two circuits apart and does not claim a rest that has not ended', () => {
    const second = { ...map, circuit: '-2', title: 'Circuit 2' };
    const open = { ...cycle, circuit: '-2', rest: 600, restOpen: true };
    const option = runRestOption({ maps: [map, second], measured: [cycle, open] }, day);
    expect(JSON.stringify(named(option, 'measured')?.data)).toContain('circuit 2: 13.4 s on, more than 600 s off');
    expect(JSON.stringify(named(option, 'sound-names')?.data)).toContain('sound, circuit 2');
    expect(runRestText({ maps: [map], measured: [open] })).toContain('more than 600 s off');
  });

  it('says in words what it shows, with nothing measured too', () => {
    expect(runRestText({ maps: [map], measured: [] })).toBe(
      'Pump run time against rest time. A sound one would be at 12.0 s on and 900 s off.',
    );
    expect(() => runRestOption({ maps: [map], measured: [] }, day)).not.toThrow();
  });
});

describe('life of a sphere', () => {
  const checks = [0, 1, 2, 3].map((i) => ({ day: 20_000 + 182 * i, precharge: 6.2e6 - 60e3 * i, standard: 20e3 }));
  const limits = [5.58e6, 6.82e6] as const;
  const look = { unit: unitOf('MPa'), tokens: day };

  it('shows every check, its limit and the day of the next look inside its axes', () => {
    const forecast = forecastSphere(checks, limits[0]);
    const option = sphereLifeOption({ checks, forecast, limits, today: 20_600 }, look);
    const x = option.xAxis as { min: number; max: number };
    const y = option.yAxis as { min: number; max: number };
    const dayLength = 86_400_000;
    for (const check of checks) {
      expect(check.day * dayLength).toBeGreaterThan(x.min);
      expect(check.precharge / 1e6).toBeGreaterThan(y.min);
      expect(check.precharge / 1e6).toBeLessThan(y.max);
    }
    expect(forecast.nextCheck * dayLength).toBeLessThan(x.max);
    expect(limits[0] / 1e6).toBeGreaterThan(y.min);
    expect(figuresOf(option.series).every(Number.isFinite)).toBe(true);
  });

  it('draws no future from a single check', () => {
    const one = checks.slice(0, 1);
    const few = sphereLifeOption(
      { checks: one, forecast: forecastSphere(one, limits[0]), limits, today: 20_100 },
      look,
    );
    const many = sphereLifeOption({ checks, forecast: forecastSphere(checks, limits[0]), limits, today: 20_600 }, look);
    const points = (option: typeof few) => figuresOf(drawn(option).map((each) => each.data)).length;
    expect(points(few)).toBeLessThan(points(many) / 4);
    expect(figuresOf(few.series).every(Number.isFinite)).toBe(true);
  });

  it('stands for a sphere that was never checked', () => {
    const none = sphereLifeOption({ checks: [], forecast: forecastSphere([], limits[0]), limits, today: 20_100 }, look);
    expect(figuresOf([none.xAxis, none.yAxis]).every(Number.isFinite)).toBe(true);
  });
});

describe('staircase', () => {
  const predicted: PredictedStaircase = {
    strokes: [8, 7, 6, 5].map((mega, i) => ({ output: mega * 1e6, vacuum: (mega + 1) * 1e6, assisted: i < 3 })),
    threshold: 5.5e6,
    of: 'store',
  };
  const measured = [7.9, 6.8, 5.9].map((mega, i) => ({ output: mega * 1e6, vacuum: Number.NaN, time: 10 * i }));
  const look = { unit: unitOf('MPa'), tokens: day };

  it('draws what was predicted and what was measured, stroke by stroke, and nothing that is no number', () => {
    const option = staircaseOption({ predicted, measured }, look);
    const all = figuresOf(drawn(option).map((each) => each.data));
    expect(all.every(Number.isFinite)).toBe(true);
    for (const mega of [7.9, 6.8, 5.9]) expect(all.some((each) => Math.abs(each - mega) < 1e-9)).toBe(true);
  });

  it('says in words what it shows', () => {
    expect(staircaseText({ predicted, measured }, look.unit)).toBe(
      'Pressure left after each stroke. Measured 7.90, 6.80, 5.90 MPa. A sound unit would give 8.00, 7.00, 6.00, 5.00 MPa.',
    );
    expect(staircaseText({ predicted: { ...predicted, of: undefined }, measured: [] }, look.unit)).toContain(
      'Output stroke by stroke. A sound unit would give',
    );
  });
});
