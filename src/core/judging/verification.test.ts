import { everyKind, kindNamed } from '../families';
import type { StepEvaluation } from './evaluate-unit';
import { changesOf } from './changes';
import { mendedFaults, verificationOf, type PartAction } from './verification';

const remote = kindNamed('vacuum-remote');
const step = (id: string, verdict: StepEvaluation['verdict']) => ({ step: id, verdict });
const work = (part: string, action: PartAction = 'replaced') => [{ part, action, with: '' }];

describe('what is done again after a repair', () => {
  it('is what failed, what the work can change, and what closes every repair, each with its reason', () => {
    const before = [step('boost-curve', 'fail'), step('stop-lamp-switch', 'pass'), step('release', 'undecided')];
    const due = verificationOf(remote, 'bench', before, work('stop-lamp-switch'));
    const because = new Map(due.map((each) => [each.step, each.because]));
    expect(because.get('boost-curve')).toBe('failed');
    expect(because.get('release')).toBe('failed');
    expect(because.get('stop-lamp-switch')).toBe('affected');
    expect(because.get('vacuum-hold-rest')).toBe('closing');
    expect(because.has('vacuum-draw')).toBe(false);
    const plan = remote.plans[0].steps;
    expect(due.map((each) => plan.indexOf(each.step))).toEqual(
      due.map((each) => plan.indexOf(each.step)).toSorted((a, b) => a - b),
    );
  });

  it('keeps due what an earlier repair made due and nobody has done since, and nothing that was done', () => {
    const before = [step('stop-lamp-switch', 'not-run'), step('vacuum-draw', 'pass')];
    const earlier = [
      { step: 'stop-lamp-switch', because: 'affected' as const },
      { step: 'vacuum-draw', because: 'affected' as const },
    ];
    const due = verificationOf(remote, 'bench', before, work('return-spring'), earlier);
    expect(due).toContainEqual({ step: 'stop-lamp-switch', because: 'still-due' });
    expect(due.map((each) => each.step)).not.toContain('vacuum-draw');
  });

  it('counts a part that was put back as it was, and not one that was left alone', () => {
    const of = (action: PartAction) =>
      verificationOf(remote, 'bench', [], work('stop-lamp-switch', action)).map((each) => each.step);
    expect(of('reused')).toContain('stop-lamp-switch');
    expect(of('left')).not.toContain('stop-lamp-switch');
  });

  it('takes the faults of a part away by what mends it, and by nothing else', () => {
    const fault = remote.parts.find((part) => part.id === 'control-valve')!.faults;
    for (const action of ['replaced', 'cleaned', 'adjusted'] as const)
      expect(mendedFaults(remote, work('control-valve', action))).toEqual(fault);
    for (const action of ['reused', 'left'] as const)
      expect(mendedFaults(remote, work('control-valve', action))).toEqual([]);
  });

  it.each(everyKind.map((kind) => [kind.sheet.example.name, kind] as const))(
    '%s: every step that a plan closes with is one of its own',
    (_name, kind) => {
      for (const plan of kind.plans) {
        expect(plan.closing.filter((id) => !plan.steps.includes(id))).toEqual([]);
        expect(plan.closing.length).toBeGreaterThan(0);
      }
      const alike = everyKind.filter((each) => each.family === kind.family);
      const known = alike.flatMap((each) => each.model.faults.map((fault) => fault.id));
      expect(Object.keys(kind.prevalence).filter((id) => !known.includes(id))).toEqual([]);
    },
  );
});

describe('what a repair changed', () => {
  const measured = (value: number, standard: number) => ({
    step: 'vacuum-hold-applied',
    characteristics: [
      {
        kind: 'measured' as const,
        id: 'vacuum-loss' as const,
        estimate: { value, components: [{ source: 'fit' as const, standard, random: true }] },
      },
    ],
  });

  it('is the difference with the U of both, and whether that is more than it', () => {
    const [change] = changesOf([measured(11_600, 30)], [measured(300, 40)]);
    expect(change.difference).toEqual({ value: -11_300, expanded: 100 });
    expect(change.moved).toBe(true);
    expect(changesOf([measured(300, 40)], [measured(350, 40)])[0].moved).toBe(false);
  });

  it('is no difference where one of them is no number, and nothing of a step that was not done before', () => {
    const absent = {
      step: 'vacuum-hold-applied',
      characteristics: [{ kind: 'absent' as const, id: 'vacuum-loss' as const, problem: { code: 'no-hold' as const } }],
    };
    const [change] = changesOf([absent as never], [measured(300, 40)]);
    expect([change.difference, change.moved]).toEqual([null, true]);
    expect(changesOf([], [measured(300, 40)])).toEqual([]);
  });
});
