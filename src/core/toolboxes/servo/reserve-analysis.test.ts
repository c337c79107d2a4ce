import { contextAt } from '../../formats/site-file';
import { checkKind } from '../../formats/unit-sheet';
import { kindNamed } from '../../families';
import { expandedUncertainty } from '../../instruments/uncertainty';
import { dice, goodGauge, writeLog, type Signal } from '../../../../tests/support/second-writer/logger';
import { foot } from '../../../../tests/support/second-writer/step-case';
import { analyseReserve } from './reserve-analysis';

const kind = kindNamed('vacuum-inline');
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 1420 }, '2026-11-23', 'vehicle');

/** Six strokes from `full` Pa of vacuum, each leaving `keeps` of what was there; half a megapascal by foot alone. */
function analysed(full: number, keeps: number) {
  const signal = (at: (t: number) => number, white: number): Signal => ({ at, gauging: { ...goodGauge, white } });
  const times = Array.from({ length: 6 }, (_, n) => 4 + 3 * n);
  const pedal = foot(times, 1.5, () => 200);
  const left = (t: number) => full * keeps ** times.filter((at) => t > at + 0.2).length;
  const log = writeLog(
    {
      pedal_force: signal(pedal, 1),
      output_pressure: signal((t) => (pedal(t) / 200) * (0.5e6 + 60 * left(t)), 3e3),
      supply_vacuum: signal(left, 20),
    },
    { seconds: 26, rate: 50 },
    dice(9),
  );
  return analyseReserve(log, context, {
    lever: 'pedal_force',
    unassisted: () => 0.5e6,
    store: { channel: 'supply_vacuum', full: 57e3 },
  });
}

const of = (analysis: ReturnType<typeof analysed>, id: string) =>
  analysis.characteristics.find((each) => each.id === id);

describe('strokes from a reserve', () => {
  it('count until less than half the help of the first is left, and tell what the first stroke cost', () => {
    const analysis = analysed(57e3, 0.75);
    const count = of(analysis, 'assisted-applications');
    expect(count).toMatchObject({ kind: 'measured', estimate: { value: 3 } });
    const cost = of(analysis, 'vacuum-per-application');
    if (cost?.kind !== 'measured') throw new Error('not measured');
    expect(Math.abs(cost.estimate.value - 0.25 * 57e3)).toBeLessThan(expandedUncertainty(cost.estimate));
  });

  it('from hardly any vacuum are no count of anything', () => {
    const none = { kind: 'absent', problem: { code: 'source-never-opened' } };
    expect(of(analysed(6e3, 0.8), 'assisted-applications')).toMatchObject(none);
  });

  it('from less than the source should give are only a lower bound, and that is said', () => {
    const analysis = analysed(30e3, 0.8);
    expect(of(analysis, 'assisted-applications')).toMatchObject({ kind: 'beyond', side: 'above' });
    expect(analysis.notes.map((note) => note.code)).toContain('reserve-from-too-little');
  });
});
