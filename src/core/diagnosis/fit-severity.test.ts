import { conditionWith } from '../contract/model';
import { kindNamed } from '../families';
import { randomSource } from '../physics/random';
import { benchTest, drawUnit } from '../../../tests/support/drawn-unit';
import { tableOf } from '../../../tests/support/tables';
import { variedBench } from '../../../tests/support/varied-bench';
import { fitSeverity } from './fit-severity';

/** A unit of another size than the example, with a fault, tested by the noisy rig on the steps named. */
function fitted(family: string, fault: string, severity: number, steps: readonly string[]) {
  const kind = kindNamed(family);
  const plan = kind.plans[0].id;
  const { context } = variedBench(kind, plan, 6001);
  const drawn = drawUnit(kind, context, { kind: 'fault', fault, severity }, randomSource(31));
  const evaluations = benchTest(kind, context, drawn, { seed: 5, steps, writer: 'rig' });
  const { extent } = kind.model.faults.find((each) => each.id === fault)!;
  const condition: unknown = conditionWith(kind.model, context.unit, [{ id: fault, severity }]);
  return {
    fit: fitSeverity(kind, tableOf(kind, plan), context, evaluations, fault),
    truth: extent.kind === 'figure' ? extent.of(condition, context.unit) : Number.NaN,
  };
}

describe('how much of a fault there is', () => {
  it.each([
    ['vacuum-remote', 'vacuum-valve-leak', 0.3, ['vacuum-hold-applied', 'boost-curve']],
    ['vacuum-supply', 'supply-leak', 0.5, ['rest-leak', 'check-valve']],
    ['motor-pump-boost', 'accumulator-precharge-low', 0.25, ['charge-from-empty', 'applications']],
    ['pedal-valve', 'spool-sticking', 0.7, ['modulation-curve']],
    ['motor-boost', 'ground-resistance', 0.4, ['make-safe-before', 'supply-check']],
  ] as const)('%s: %s of %d is found within 15 %%, or within its U', (family, fault, severity, steps) => {
    const { fit, truth } = fitted(family, fault, severity, steps);
    const { extent } = fit!;
    expect(Math.abs(extent!.value - truth)).toBeLessThanOrEqual(Math.max(extent!.expanded, 0.15 * Math.abs(truth)));
    // A U that says nothing would cover anything.
    expect(extent!.expanded).toBeLessThan(0.6 * Math.abs(truth - extent!.sound));
    for (const step of fit!.steps) expect(steps).toContain(step);
  });

  it('says nothing where nothing that was measured is moved by it', () => {
    expect(fitted('vacuum-remote', 'vacuum-valve-leak', 0.5, ['gauge-agreement']).fit).toBeNull();
  });
});
