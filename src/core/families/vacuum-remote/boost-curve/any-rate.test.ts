import { standInUnit } from '../../../../../tests/support/stand-in-unit';
import { expandedUncertainty } from '../../../instruments/uncertainty';
import { evaluateStep } from '../../../judging/evaluate-unit';
import { randomSource } from '../../../physics/random';
import { estimateOf } from '../../../procedure/analysis-result';
import { simulateStep } from '../../../rig/run-step';
import { makeTrace, type Trace } from '../../../traces/trace';

const { kind, context } = standInUnit('vacuum-remote', 'bench');
const step = kind.steps.find(({ id }) => id === 'boost-curve')!;
if (step.kind !== 'measured') throw new Error('there is no curve');

/** The same pull by a logger of another rate: straight between samples, each row with a scatter of its own. */
function atRate(trace: Trace, rows: number): Trace {
  const random = randomSource(11);
  const { time } = trace;
  const span = time[time.length - 1] - time[0];
  const at = Float64Array.from({ length: rows }, (_, i) => time[0] + (span * i) / (rows - 1));
  const column = (values: Float64Array, scatter: number) =>
    at.map((t) => {
      const place = Math.min(time.length - 1.001, ((t - time[0]) / span) * (time.length - 1));
      const i = Math.floor(place);
      return values[i] + (place - i) * (values[i + 1] - values[i]) + scatter * random.normal();
    });
  const scatters: Readonly<Record<string, number>> = { input_pressure: 5e3, output_pressure: 8e3 };
  return makeTrace(
    at,
    Object.fromEntries(Object.entries(trace.columns).map(([id, values]) => [id, column(values, scatters[id] ?? 0)])),
  );
}

describe.each([
  ['sound', []],
  ['with a leaking valve', [{ id: 'vacuum-valve-leak', severity: 0.8 }]],
] as const)('one curve of a unit, %s, at any rate', (_name, faults) => {
  const pull = simulateStep(kind, step, context, { faults: [...faults], benchSeed: 3, runSeed: 3 });
  const judged = [6_000, 60_000, 400_000].map((rows) => {
    const analysis = step.analyse(atRate(pull, rows), context);
    const { verdict } = evaluateStep(kind, step, [{ analysed: () => analysis }], { context, policy: 'guarded' });
    return { analysis, verdict };
  });

  it('says that it was read as means, where it was', () => {
    const said = judged.map(({ analysis }) => analysis.notes.some(({ code }) => code === 'rows-averaged'));
    expect(said).toEqual([false, true, true]);
  });

  it('comes to one verdict', () => {
    expect(new Set(judged.map(({ verdict }) => verdict)).size).toBe(1);
  });

  it.each(['boost-ratio', 'boost-slope', 'cut-in-pressure', 'run-out-input'] as const)('%s agrees within U', (id) => {
    const found = judged.map(({ analysis }) => estimateOf(analysis, id)!);
    for (const each of found)
      expect(Math.abs(each.value - found[0].value)).toBeLessThan(Math.max(...found.map(expandedUncertainty)));
  });
});
