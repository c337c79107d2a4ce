import { conditionWith } from '@/core/contract/model';
import type { AnyKind } from '@/core/contract/kind';
import { fitSeverity } from '@/core/diagnosis/fit-severity';
import { ledgerOf } from '@/core/diagnosis/ledger';
import { observeUnit } from '@/core/diagnosis/make-signatures';
import { everyKind } from '@/core/families';
import { checkKind } from '@/core/formats/unit-sheet';
import { contextAt } from '@/core/formats/site-file';
import { evaluateUnit, type StepEvidence } from '@/core/judging/evaluate-unit';
import { simulateStep } from '@/core/rig/run-step';
import { readSignatures } from '@/server/context/signature-file';

/* How fast faults are ranked, on the smallest plan, on an ordinary one and on the largest. */

const updates = 20;

/** Median of what a work takes, ms. */
function median(work: () => void): number {
  const took = Array.from({ length: updates }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });
  return took.sort((a, b) => a - b)[updates / 2];
}

/** An example sheet with one of its faults, every step of its first plan observed without noise. */
function faultyUnit(kind: AnyKind) {
  const checked = checkKind(kind, 'bench', kind.sheet.example.spec, 'bench');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const context = contextAt(checked.value, { altitudeM: 1420, benchVolumeCm3: 600 }, '2026-11-23', kind.plans[0].id);
  const fault = kind.model.faults.find((each) => each.extent.kind === 'figure')!.id;
  const condition: unknown = conditionWith(kind.model, context.unit, [{ id: fault, severity: 0.5 }]);
  return { context, fault, steps: observeUnit(kind, context, { unit: context.unit, condition }).steps };
}

/** Every measured step of a plan as logs, judged: what `hp evaluate` does but for reading files. */
function judgedWhole(kind: AnyKind, { context }: ReturnType<typeof faultyUnit>): number {
  const { steps } = kind.plans[0];
  const evidence = steps.flatMap((id): StepEvidence[] => {
    const step = kind.steps.find((each) => each.id === id)!;
    if (step.kind !== 'measured') return [];
    const trace = simulateStep(kind, step, context, { faults: [], benchSeed: 1, runSeed: 1 });
    return [{ kind: 'traces', step: id, traces: [trace] }];
  });
  const from = performance.now();
  evaluateUnit(kind, steps, evidence, { context, policy: 'guarded' });
  return performance.now() - from;
}

/** Prints how long a first ranking, an update with the next best test, and a fit of a severity take. */
export function rankingSpeed(line: (what: string, value: string, aim: string) => void): void {
  const sizes = everyKind.toSorted((a, b) => a.plans[0].steps.length - b.plans[0].steps.length);
  for (const kind of [sizes[0], sizes[Math.floor(sizes.length / 2)], sizes[sizes.length - 1]]) {
    const unit = faultyUnit(kind);
    const { context, fault, steps } = unit;
    const name = `${kind.sheet.example.name}, ${steps.length} steps, ${kind.model.faults.length} faults`;
    const from = performance.now();
    const table = readSignatures(kind, context.plan)!;
    const asked = { context, steps, symptoms: [] };
    ledgerOf(kind, table, asked);
    line(`first ranking (${name})`, `${(performance.now() - from).toFixed(0)} ms`, 'aim under 1 s');
    line(
      'the same again, with the next best test',
      `${median(() => ledgerOf(kind, table, asked)).toFixed(1)} ms`,
      'aim under 30 ms',
    );
    const fitted = performance.now();
    fitSeverity(kind, table, context, steps, fault);
    line(
      'a severity fitted by the unit’s own model',
      `${(performance.now() - fitted).toFixed(0)} ms`,
      'when it is asked for',
    );
    line(
      'the whole plan judged, without the ranking',
      `${judgedWhole(kind, unit).toFixed(0)} ms`,
      'ranking adds under 3 s',
    );
  }
}
