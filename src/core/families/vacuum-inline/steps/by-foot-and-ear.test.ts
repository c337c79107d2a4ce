import { planOf } from '../../../contract/kind';
import { contextAt } from '../../../formats/site-file';
import { checkKind } from '../../../formats/unit-sheet';
import { concludeInquiry } from '../../../judging/conclude-inquiry';
import { evaluateUnit, type StepEvidence } from '../../../judging/evaluate-unit';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { TypedValues } from '../../../procedure/typed-entry';
import { conclusionAdvice } from '../../../wording/conclusion-text';
import { simulateStep } from '../../../rig/run-step';
import { kindNamed } from '../..';

/*
 * A hard pedal looked into with a foot, an ear, a mouth and one vacuum gauge: what a person feels is taken from what the vehicle does, and
 * the inquiry ends where the fault is.
 */

const kind = kindNamed('vacuum-inline');
const checked = checkKind(kind, 'minibus', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const site = { altitudeM: 0, benchVolumeCm3: 600, airTemperatureC: 20 };
const context = contextAt(checked.value, site, '2026-11-23', 'vehicle');
const plan = planOf(kind, 'vehicle');

const stepNamed = (id: string) => kind.steps.find((each) => each.id === id) as MeasuredStep<unknown>;

/** A vacuum gauge of a hand pump's kit: half a division of 2 kPa. */
const needle = (vacuum: number) => Math.round(vacuum / 1_000) * 1_000;

/** What anybody sees and feels of one step of a vehicle with a fault. */
function feltOf(step: string, fault: string | null, severity: number): TypedValues {
  const faults = fault ? [{ id: fault, severity }] : [];
  const analysis: StepAnalysis = stepNamed(step).analyse(
    simulateStep(kind, stepNamed(step), context, { faults, benchSeed: 3, runSeed: 5, sampleRate: 50 }),
    context,
  );
  const figure = (id: string) => {
    const found = analysis.characteristics.find((each) => each.id === id);
    return found?.kind === 'measured' ? found.estimate.value : found?.kind === 'beyond' ? found.bound.value : 0;
  };
  const strokes = (count: number): TypedValues =>
    Object.fromEntries(Array.from({ length: count + 1 }, (_, at) => [`felt#${at + 1}`, at < count ? 0 : 2]));
  switch (step) {
    case 'source-vacuum':
      return { 'idle-vacuum': needle(figure('idle-vacuum')), 'held-vacuum': needle(figure('held-vacuum')) };
    case 'check-valve':
      // Blown through by mouth: both ways where it leaks more than a breath would not notice.
      return { blown: figure('reverse-leak') > 1_500 ? 1 : 0 };
    case 'pedal-drop': {
      const sank = figure('pedal-sink');
      return { felt: sank < 0.004 ? 2 : sank > 0.07 ? 3 : 0 };
    }
    case 'same-force-pair': {
      const ratio = figure('vehicle-ratio');
      return { lighter: ratio > 2 ? 0 : ratio > 1.3 ? 1 : 2 };
    }
    default:
      return strokes(Math.round(figure('assisted-applications')));
  }
}

const measured = ['source-vacuum', 'check-valve', 'pedal-drop', 'reserve', 'reserve-soak', 'same-force-pair'];

function inquiry(fault: string | null, severity: number, behind: Readonly<Record<string, string>> = {}) {
  const evidence: StepEvidence[] = [];
  for (const step of measured) {
    evidence.push({ kind: 'mixed', step, given: [{ readings: feltOf(step, fault, severity) }] });
    const state = concludeInquiry(plan, evaluateUnit(kind, plan.steps, evidence, { context, policy: 'guarded' }));
    if (state.kind === 'concluded' && !state.conclusion.clears) return state;
  }
  evidence.push({ kind: 'findings', step: 'behind-the-booster', findings: behind });
  return concludeInquiry(plan, evaluateUnit(kind, plan.steps, evidence, { context, policy: 'guarded' }));
}

describe('a hard pedal, by foot, ear and one vacuum gauge', () => {
  it.each([
    ['low-source-vacuum', 'source'],
    ['hose-collapsing', 'hose'],
    ['check-valve-leak', 'check-valve'],
    ['atmosphere-valve-leak', 'leaking-unit'],
    ['diaphragm-leak', 'unit'],
  ])('%s ends at %s', (fault, end) => {
    const state = inquiry(fault, 0.9);
    expect(state.kind === 'concluded' && state.conclusion.id).toBe(end);
  });

  it.each([
    ['combination-valve', 'combination-valve'],
    ['seized-wheel', 'seized-wheel'],
    ['linings', 'linings'],
  ])('a sound booster with %s found behind it ends there', (point, end) => {
    const state = inquiry(null, 0, { [point]: 'found' });
    expect(state.kind === 'concluded' && state.conclusion.id).toBe(end);
  });

  it('a sound vehicle ends at what is behind the booster, and says what of it was never measured', () => {
    const state = inquiry(null, 0);
    if (state.kind !== 'concluded') throw new Error('still open');
    expect(state.conclusion.id).toBe('not-the-booster');
    expect(state.felt).toEqual(['check-valve', 'pedal-drop', 'same-force-pair']);
    expect(conclusionAdvice(state.conclusion, state.felt, kind.steps)).toContain(
      'By foot and ear, not measured: check valve',
    );
  });

  it('one gauge that reads more at the engine than at the unit is the hose, however little arrives', () => {
    const at = (readings: TypedValues) => {
      const evidence: StepEvidence[] = [{ kind: 'mixed', step: 'source-vacuum', given: [{ readings }] }];
      const state = concludeInquiry(plan, evaluateUnit(kind, plan.steps, evidence, { context, policy: 'guarded' }));
      return state.kind === 'concluded' ? state.conclusion.id : null;
    };
    const short = { 'idle-vacuum': 30e3, 'held-vacuum': 28e3 };
    expect(at(short)).toBe('source');
    expect(at({ ...short, 'engine-idle': 66e3, 'engine-held': 65e3 })).toBe('hose');
    expect(at({ ...short, 'engine-idle': 31e3 })).toBe('source');
  });

  it('what was felt is never a pass', () => {
    const evidence: StepEvidence[] = [{ kind: 'mixed', step: 'pedal-drop', given: [{ readings: { felt: 0 } }] }];
    const { steps } = evaluateUnit(kind, plan.steps, evidence, { context, policy: 'guarded' });
    expect(steps.find(({ step }) => step === 'pedal-drop')?.verdict).toBe('undecided');
  });
});
