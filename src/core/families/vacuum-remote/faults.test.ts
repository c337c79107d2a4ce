import { families } from '..';
import { contextAt } from '../../formats/site-file';
import { checkSpec } from '../../formats/unit-sheet';
import { evaluateUnit, type StepEvidence } from '../../judging/evaluate-unit';
import { simulateStep } from '../../rig/run-step';
import type { ActiveFault } from '../family';

const [family] = families;
const checked = checkSpec(family, 'study', family.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 }, '2026-11-23');

function evaluateWith(faults: readonly ActiveFault[]) {
  const evidence = family.steps.flatMap((step): StepEvidence[] =>
    step.kind === 'measured'
      ? [
          {
            kind: 'traces',
            step: step.id,
            traces: [simulateStep(family, step, context, { faults, benchSeed: 5, runSeed: 5 })],
          },
        ]
      : [],
  );
  const evaluation = evaluateUnit(family, family.plans[0].steps, evidence, { context, policy: 'guarded' });
  return Object.fromEntries(evaluation.steps.map((step) => [step.step, step]));
}

/** Steps that must fail for a fault, and steps that must not. */
const signatures: readonly { id: string; severity: number; fails: readonly string[]; holds: readonly string[] }[] = [
  {
    id: 'power-diaphragm-leak',
    severity: 0.6,
    fails: ['vacuum-hold-applied'],
    holds: ['vacuum-hold-rest', 'pressure-hold'],
  },
  {
    id: 'atmosphere-valve-leak',
    severity: 0.6,
    fails: ['vacuum-hold-rest'],
    holds: ['low-pressure-hold', 'pressure-hold'],
  },
  {
    id: 'vacuum-valve-leak',
    severity: 0.8,
    fails: ['vacuum-hold-applied', 'boost-curve'],
    holds: ['vacuum-hold-rest'],
  },
  {
    id: 'control-piston-sticking',
    severity: 0.7,
    fails: ['boost-curve'],
    holds: ['vacuum-hold-rest', 'pressure-hold'],
  },
  {
    id: 'slave-piston-seal-bypass',
    severity: 0.6,
    fails: ['pressure-hold'],
    holds: ['low-pressure-hold', 'boost-curve'],
  },
  { id: 'bypass-check-leak', severity: 0.6, fails: ['boost-curve', 'pressure-hold'], holds: ['vacuum-hold-rest'] },
  { id: 'bypass-check-blocked', severity: 0.6, fails: ['gauge-agreement', 'release'], holds: ['vacuum-hold-rest'] },
  { id: 'return-spring-weak', severity: 0.8, fails: ['release'], holds: ['vacuum-hold-rest', 'pressure-hold'] },
  {
    id: 'external-hydraulic-leak',
    severity: 0.6,
    fails: ['low-pressure-hold', 'pressure-hold'],
    holds: ['vacuum-hold-rest'],
  },
  { id: 'power-piston-friction', severity: 0.6, fails: ['boost-curve'], holds: ['vacuum-hold-rest', 'pressure-hold'] },
  { id: 'supply-hose-collapsed', severity: 1, fails: [], holds: ['pressure-hold', 'vacuum-hold-rest'] },
  { id: 'breather-restricted', severity: 0.5, fails: [], holds: ['vacuum-hold-rest', 'pressure-hold', 'boost-curve'] },
  { id: 'control-piston-seal-leak', severity: 0.6, fails: [], holds: ['vacuum-hold-rest'] },
  { id: 'rod-seal-leak', severity: 0.6, fails: [], holds: ['vacuum-hold-rest'] },
  { id: 'switch-out-of-range', severity: 0.5, fails: ['stop-lamp-switch'], holds: ['boost-curve', 'pressure-hold'] },
];

describe('faults of a remote vacuum unit show as the trade knows them', () => {
  it('a sound unit passes every measured step', () => {
    const steps = evaluateWith([]);
    for (const step of family.steps)
      if (step.kind === 'measured')
        expect({ step: step.id, verdict: steps[step.id].verdict }).toEqual({ step: step.id, verdict: 'pass' });
  });

  it('covers every fault of the family', () => {
    expect(signatures.map((each) => each.id).sort()).toEqual(family.faults.map((fault) => fault.id).sort());
  });

  it.each(signatures)('$id', ({ id, severity, fails, holds }) => {
    const steps = evaluateWith([{ id, severity }]);
    for (const step of fails) expect({ step, verdict: steps[step].verdict }).toEqual({ step, verdict: 'fail' });
    for (const step of holds) expect({ step, verdict: steps[step].verdict }).toEqual({ step, verdict: 'pass' });
  });

  it('a leaking control piston seal or rod seal lets the input fall in a hold', () => {
    for (const id of ['control-piston-seal-leak', 'rod-seal-leak']) {
      const found = evaluateWith([{ id, severity: 0.6 }])['pressure-hold'].characteristics.find(
        (c) => c.id === 'input-creep',
      );
      expect(found?.kind === 'measured' && found.estimate.value).toBeLessThan(-500);
    }
  });

  it('a collapsed hose sags the supply at the unit', () => {
    const sag = (faults: readonly ActiveFault[]) => {
      const found = evaluateWith(faults)['boost-curve'].characteristics.find((each) => each.id === 'supply-sag');
      return found?.kind === 'measured' ? found.estimate.value : Number.NaN;
    };
    expect(sag([{ id: 'supply-hose-collapsed', severity: 1 }])).toBeGreaterThan(10 * Math.max(30, sag([])));
  });
});
