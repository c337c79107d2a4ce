import { rigForStep } from '../rig/run-step';
import { runByItself, type Hand } from '../rig/run-by-itself';
import { leverByItself } from '../procedure/guide';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { evaluateStep } from '../judging/evaluate-unit';
import { liveFeed, type MeasuredStep } from '../procedure/step-definition';
import { families } from '.';

/** Begins every move so much later than the guide asks for it, s. */
const late = 12;
const lateHand: Hand = {
  longest: 4_000,
  lever: (phases, state) =>
    state.elapsed < late ? state.leverFrom : leverByItself(phases, { ...state, elapsed: state.elapsed - late }),
};
/** Somebody who started a step and went away. */
const noHand: Hand = { longest: 100, lever: () => 0 };

const cases = families
  .flatMap((family) => family.kinds)
  .flatMap((kind) =>
    kind.plans.flatMap((plan) =>
      kind.steps
        // Nobody's hand is on what only a log tells.
        .filter((step): step is MeasuredStep<unknown> => step.kind === 'measured' && step.feeds.live !== undefined)
        .filter((step) => plan.steps.includes(step.id))
        // A soak of hours asks for no hand until its end.
        .filter((step) => !step.id.includes('soak') && step.id !== 'rest-cycle')
        .map((step) => [`${kind.family} (${kind.curve.outputs[0]}) ${plan.id} ${step.id}`, kind, plan, step] as const),
    ),
  );

/** What a sound unit comes to with a hand that is none of the rig's. */
function judged([, kind, plan, step]: (typeof cases)[number], hand: Hand) {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, benchVolumeCm3: 600, airTemperatureC: 11 };
  const context = contextAt(checked.value, site, '2026-11-24', plan.id);
  const rig = rigForStep(kind, step, context, { faults: [], benchSeed: 3, runSeed: 5, sampleRate: 40 });
  const trace = runByItself(rig, liveFeed(step).guide(context), hand);
  return evaluateStep(kind, step, [{ analysed: () => step.analyse(trace, context) }], { context, policy: 'guarded' })
    .verdict;
}

describe.each(cases)('%s', (...each) => {
  it('never fails a sound unit for a hand that begins late', () => {
    expect(judged(each, lateHand)).not.toBe('fail');
  });

  // What is still under pressure is not dead, whoever did nothing.
  if (each[3].id.startsWith('make-dead')) return;
  it('never fails a sound unit where nobody did anything', () => {
    expect(judged(each, noHand)).not.toBe('fail');
  });
});
