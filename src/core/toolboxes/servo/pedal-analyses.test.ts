import { contextAt } from '../../formats/site-file';
import { checkKind } from '../../formats/unit-sheet';
import { kindNamed } from '../../families';
import { expandedUncertainty } from '../../instruments/uncertainty';
import { estimateOf } from '../../procedure/analysis-result';
import { dice, goodGauge, writeLog, type Signal } from '../../../../tests/support/second-writer/logger';
import { analysePedalDrop } from './pedal-analyses';

const kind = kindNamed('vacuum-inline');
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 1420 }, '2026-11-23', 'vehicle');

/** Eight strokes, then a foot that stays: the pedal creeps by itself, and sinks when the engine starts. */
function pedalLog(of: {
  readonly creep: number;
  readonly sink: number;
  readonly withEngine?: boolean;
  readonly seed?: number;
}) {
  const [holdAt, startsAt, ends] = [17, 20, 26];
  const stroke = (t: number) => (t < 16 ? Math.max(0, Math.min(1, 4 * (t % 2), 4 * (1.2 - (t % 2)))) : 0);
  const held = (t: number) => Math.min(1, Math.max(0, 4 * (t - holdAt)));
  const travel = (t: number) =>
    0.05 * stroke(t) +
    held(t) * (0.05 + of.creep * (t - holdAt) + of.sink * (1 - Math.exp(-Math.max(0, t - startsAt) / 0.4)));
  const signal = (at: (t: number) => number, white: number): Signal => ({ at, gauging: { ...goodGauge, white } });
  return writeLog(
    {
      pedal_force: signal((t) => 250 * Math.max(stroke(t), held(t)), 2),
      pedal_travel: signal(travel, 1e-4),
      ...(of.withEngine === false ? {} : { engine_on: signal((t) => (t >= startsAt ? 1 : 0), 0) }),
      output_pressure: signal((t) => 1e6 * Math.max(stroke(t), held(t)), 3e3),
    },
    { seconds: ends, rate: 50 },
    dice(of.seed ?? 12),
  );
}

const sinkOf = (of: Parameters<typeof pedalLog>[0]) =>
  estimateOf(analysePedalDrop(pedalLog(of), context), 'pedal-sink')!.value;

describe('pedal drop', () => {
  it('is what the pedal sinks when the engine starts, within its uncertainty nineteen times of twenty', () => {
    const covered = Array.from({ length: 60 }, (_, seed) => {
      const sink = estimateOf(analysePedalDrop(pedalLog({ creep: 0, sink: 12e-3, seed }), context), 'pedal-sink')!;
      return Math.abs(sink.value - 12e-3) <= expandedUncertainty(sink);
    }).filter(Boolean);
    expect(covered.length).toBeGreaterThanOrEqual(54);
  });

  it('what the pedal crept by itself before is taken off', () => {
    expect(sinkOf({ creep: 1.5e-3, sink: 12e-3 })).toBeCloseTo(12e-3, 3);
    // A master cylinder that leaks past its seals would else pass for a booster that helps.
    expect(Math.abs(sinkOf({ creep: 1.5e-3, sink: 0 }))).toBeLessThan(1.5e-3);
  });

  it('without the engine’s signal a sinking pedal proves nothing', () => {
    const { doubts } = analysePedalDrop(pedalLog({ creep: 0, sink: 12e-3, withEngine: false }), context);
    expect(doubts?.map((each) => each.code)).toEqual(['engine-not-started']);
  });
});
