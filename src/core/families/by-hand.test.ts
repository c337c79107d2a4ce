import { apart, handContext, handReadSteps } from '../../../tests/support/hand-read-steps';
import { readByHand, runByHand } from '../../../tests/support/person-at-dials';
import { entryOf, notReadByHand } from '../dials/characteristic-entry';
import { analysisOf, evaluateStep } from '../judging/evaluate-unit';
import { labelledSeed } from '../physics/random';
import { readBy } from '../procedure/typed-entry';
import { simulateStep } from '../rig/run-step';
import { families } from '.';

/*
 * What a person reads of a run with dials, a rule, a watch and a foot comes to what the run's own trace comes to, within what both say
 * of themselves; and no verdict turns into its opposite.
 */

const kinds = families.flatMap((family) => family.kinds);

/** A pressure that comes back late lags behind a lever that moves, and not behind one that is held. */
const lateBack = (fault: string, figure: string) => fault === 'return-spring-weak' && figure === 'force-hysteresis';

describe.each(handReadSteps)('%s', (_name, kind, plan, step) => {
  const context = handContext(kind, plan.id);
  // Those that tell it, and two of the others in turn.
  const telling = kind.model.faults.filter((fault) => fault.shows.includes(step.id)).slice(0, 4);
  const turn = kind.steps.indexOf(step);
  const others = kind.model.faults.filter((fault) => !telling.includes(fault));
  const faults = [...telling, ...[0, 1].flatMap((at) => others[(turn * 2 + at) % others.length] ?? [])];
  it.each([null, ...faults].map((fault) => [fault?.id ?? 'sound', fault] as const))('%s', (id, fault) => {
    const active = fault ? [{ id: fault.id, severity: 0.6 }] : [];
    const setting = {
      faults: active,
      benchSeed: labelledSeed(3, id),
      runSeed: labelledSeed(7, step.id),
      sampleRate: 50,
    };
    const trace = simulateStep(kind, step, context, setting);
    const values = readByHand(
      step,
      runByHand(kind, step, context, setting),
      context,
      labelledSeed(11, `${step.id} ${id}`),
    );
    const typed = analysisOf(step, { readings: values }, context);
    const logged = analysisOf(step, { trace }, context);
    const off = apart(typed, logged).filter(({ id: figure, times }) => times > 1.3 && !lateBack(id, figure));
    expect(off).toEqual([]);
    const verdicts = [{ readings: values }, { trace }].map(
      (given) => evaluateStep(kind, step, [given], { context, policy: 'guarded' }).verdict,
    );
    expect([verdicts, [...verdicts].sort()]).not.toEqual([verdicts, ['fail', 'pass']]);
  });
});

describe('what is asked of a person', () => {
  /** Figures that no instrument, rule, watch, eye, ear or foot shows. */
  const workedOut = new Set([
    'difference',
    'vacuum-difference',
    'rate',
    'flow',
    'ratio',
    'percent',
    'slope-per-force',
    'slope-per-angle',
    'force-per-pressure',
    'stiffness',
    'creep',
    'energy',
    'angle-rate',
    'deceleration',
  ]);

  const everyField = kinds.flatMap((kind) =>
    kind.plans.flatMap((plan) => {
      const context = handContext(kind, plan.id);
      return kind.steps.flatMap((step) => {
        if (step.kind === 'look' || !plan.steps.includes(step.id) || notReadByHand(step)) return [];
        if (step.kind === 'typed' && step.workedOut) return [];
        return entryOf(step)
          .fields(context, {})
          .map((field) => [`${kind.family} ${plan.id} ${step.id} ${field.id}`, field] as const);
      });
    }),
  );

  it('is read with something, and never worked out', () => {
    expect(everyField.length).toBeGreaterThan(300);
    expect(everyField.filter(([, field]) => readBy(field) === null).map(([name]) => name)).toEqual([]);
    expect(everyField.filter(([, field]) => workedOut.has(field.as)).map(([name, { as }]) => [name, as])).toEqual([]);
  });
});
