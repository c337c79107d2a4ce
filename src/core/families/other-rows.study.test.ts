/* The stand-in's own logs of every step, by tools that write other rows than it did: the same must come of them. */

import { expandedUncertainty } from '../instruments/uncertainty';
import { evaluateStep } from '../judging/evaluate-unit';
import type { MeasuredStep } from '../procedure/step-definition';
import { simulateStep } from '../rig/run-step';
import type { Trace } from '../traces/trace';
import { writtenAs, type Rows } from '../../../tests/support/second-writer/other-rows';
import { full } from '../../../tests/support/study-size';
import { exampleBench } from '../../../tests/support/varied-bench';
import { everyKind, findStep } from '.';

/** Longer logs than this are watched for minutes, and tell nothing more here. */
const mostRows = 60_000;

const plans = everyKind
  .filter(({ model }) => !model.log)
  .flatMap((kind) => kind.plans.map((plan) => [`${kind.family} ${kind.value} ${plan.id}`, kind, plan] as const));

const writings: readonly Rows[] = full ? ['over-and-over', 'in-turn', 'straight-between'] : ['in-turn'];

describe.each(writings)('written %s', (rows) => {
  it.each(plans)('%s', (_name, kind, plan) => {
    const { context } = exampleBench(kind, plan.id);
    for (const id of plan.steps) {
      const step = findStep(kind, id);
      if (step?.kind !== 'measured') continue;
      const trace = simulateStep(kind, step, context, { faults: [], benchSeed: 3, runSeed: 4 });
      if (trace.time.length > mostRows) continue;
      const [one, other] = [trace, writtenAs(rows, trace)].map((log) => figuresOf(step, log));
      expect([id, other.verdict, other.kinds]).toEqual([id, one.verdict, one.kinds]);
      for (const [at, { value, expanded }] of one.measured.entries()) {
        const again = other.measured[at];
        expect([id, Math.abs(again.value - value) <= Math.hypot(expanded, again.expanded)]).toEqual([id, true]);
      }
    }

    function figuresOf(step: MeasuredStep<unknown>, log: Trace) {
      const { verdict, characteristics } = evaluateStep(kind, step, [{ analysed: () => step.analyse(log, context) }], {
        context,
        policy: 'guarded',
      });
      return {
        verdict,
        kinds: characteristics.map((each) => `${each.id} ${each.kind}`),
        measured: characteristics.flatMap((each) =>
          each.kind === 'measured'
            ? [{ value: each.estimate.value, expanded: expandedUncertainty(each.estimate) }]
            : [],
        ),
      };
    }
  });
});
