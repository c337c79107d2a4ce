import { apart, handContext, handReadSteps } from '../../../tests/support/hand-read-steps';
import { readByHand, runByHand, withGoodDials } from '../../../tests/support/person-at-dials';
import { sized } from '../../../tests/support/study-size';
import { analysisOf, evaluateStep } from '../judging/evaluate-unit';
import { labelledSeed, randomSource } from '../physics/random';
import { simulateStep } from '../rig/run-step';

/*
 * Units that are off from their sheets as units are, sound and faulty, read by a person with good dials: no verdict turns into its
 * opposite, figures lie within what both say of themselves, and what passes by its log mostly passes by hand.
 */

const units = sized(5, 40);

/** What a slow hand does not see: it shows only in a quick press. */
const quickOnly = ['orifice-plugged-upper', 'orifice-plugged-lower'];
/** Steps of which a part is quicker than anybody reads. */
const inPart = ['tracking', 'step-response', 'panic'];

interface Tally {
  readonly figures: number;
  readonly far: number;
  readonly sound: number;
  readonly passed: number;
}

const byFamily = new Map<string, Tally>();
const undecided = new Map<string, number>();

describe('read by a person, over many units', () => {
  it.each(handReadSteps)('%s', (_name, kind, plan, step) => {
    const context = handContext(kind, plan.id);
    const turned: unknown[] = [];
    let tally = byFamily.get(kind.family) ?? { figures: 0, far: 0, sound: 0, passed: 0 };
    for (let at = 0; at < 2 * units; at++) {
      const random = randomSource(labelledSeed(at, `${kind.family} ${plan.id} ${step.id}`));
      const fault = at % 2 === 0 ? null : kind.model.faults[(at >> 1) % kind.model.faults.length];
      const unit = kind.model.scatter.reduce((off: unknown, each) => {
        const z = random.normal();
        return each.apply(off, Math.abs(z) <= 2.5 ? z / 2 : 0) as unknown;
      }, context.unit);
      const setting = {
        faults: fault ? [{ id: fault.id, severity: 0.3 + 0.6 * random.uniform() }] : [],
        benchSeed: labelledSeed(at, 'bench'),
        runSeed: labelledSeed(at, step.id),
        sampleRate: 50,
      };
      const trace = simulateStep(kind, step, { ...context, unit }, setting);
      const dials = withGoodDials(trace, context);
      const readings = readByHand(
        step,
        runByHand(kind, step, { ...context, unit }, setting),
        dials,
        labelledSeed(at, `hand ${step.id}`),
      );
      const how = { context: dials, policy: 'guarded' } as const;
      const [byHand, byLog] = [
        evaluateStep(kind, step, [{ readings }], how).verdict,
        evaluateStep(kind, step, [{ trace }], { ...how, context }).verdict,
      ];
      if ([byHand, byLog].sort().join() === 'fail,pass' && !quickOnly.includes(fault?.id ?? ''))
        turned.push([at, fault?.id, byHand, byLog, readings]);
      const compared = apart(analysisOf(step, { readings }, dials), analysisOf(step, { trace }, context));
      const sound = fault === null && byLog === 'pass' && !inPart.includes(step.id);
      if (sound && byHand !== 'pass') undecided.set(_name, (undecided.get(_name) ?? 0) + 1);
      tally = {
        figures: tally.figures + compared.length,
        far: tally.far + compared.filter(({ times }) => times > 1).length,
        sound: tally.sound + (sound ? 1 : 0),
        passed: tally.passed + (sound && byHand === 'pass' ? 1 : 0),
      };
    }
    byFamily.set(kind.family, tally);
    expect(turned).toEqual([]);
  });

  it('and what both say of themselves holds, and sound units pass', () => {
    const all = [...byFamily.values()];
    const sum = (of: keyof Tally) => all.reduce((total, each) => total + each[of], 0);
    if (process.env.TELL) console.log(Object.fromEntries(byFamily), Object.fromEntries(undecided));
    expect(sum('far') / sum('figures')).toBeLessThan(0.05);
    expect(sum('passed') / sum('sound')).toBeGreaterThan(0.85);
  });
});
