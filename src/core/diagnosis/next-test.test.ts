import { kindNamed } from '../families';
import { lockOf } from '../procedure/interlock';
import { evidenceFor, tableOf } from '../../../tests/support/tables';
import { nextTest, worthOf, type StepsLeft } from './next-test';
import { rank } from './rank';

const remote = kindNamed('vacuum-remote');
const bench = tableOf(remote, 'bench');
const nothing = { figures: [], points: [], symptoms: ['second-stroke-hard'] };
const open: StepsLeft = { plan: 'bench', done: new Set(), firstOf: () => null };

describe('the next best test', () => {
  it('is named from the complaint alone, with what it would settle and the minutes it takes', () => {
    const next = nextTest(remote, bench, rank(remote, bench, nothing), open);
    if (next.kind !== 'test') throw new Error(next.kind);
    expect(next.worth.gain).toBeGreaterThan(0.2);
    expect(next.worth.minutes).toBe(remote.steps.find((step) => step.id === next.worth.step)!.minutes);
    expect(next.worth.between[0]).not.toEqual(next.worth.between[1]);
  });

  it('is never one that is done already, and no step is expected to tell less than nothing', () => {
    const ranking = rank(remote, bench, nothing);
    const all = worthOf(remote, bench, ranking, open);
    expect(all.every(({ gain }) => gain >= 0)).toBe(true);
    const done = new Set([all[0].step, all[1].step]);
    expect(worthOf(remote, bench, ranking, { ...open, done }).some(({ step }) => done.has(step))).toBe(false);
  });

  it('never goes past a step for safety: that comes first, and its minutes count', () => {
    const kind = kindNamed('stored-pressure');
    const table = tableOf(kind, 'vehicle');
    const plan = kind.plans[0].steps;
    const firstOf = (id: string) => lockOf(kind.steps, plan, id, [])?.step ?? null;
    const ranking = rank(kind, table, { figures: [], points: [], symptoms: null });
    for (const worth of worthOf(kind, table, ranking, { plan: 'vehicle', done: new Set(), firstOf })) {
      const opener = firstOf(worth.step);
      if (opener === null) expect(worth.before).toEqual([]);
      else {
        expect(worth.before).not.toEqual([]);
        expect(worth.minutes).toBeGreaterThan(kind.steps.find((step) => step.id === worth.step)!.minutes);
      }
    }
  });

  it('stops where it is certain enough', () => {
    const next = nextTest(remote, bench, rank(remote, bench, evidenceFor(bench, 'vacuum-valve-leak')), open);
    expect(next).toEqual({ kind: 'certain', hypothesis: { kind: 'fault', fault: 'vacuum-valve-leak' } });
  });

  it('goes on with the plan where nothing points to a fault, until every step that a release wants is done', () => {
    const ranking = rank(remote, bench, evidenceFor(bench, null));
    const steps = remote.plans[0].steps;
    const left = { ...open, done: new Set(steps.slice(0, 4)) };
    expect(nextTest(remote, bench, ranking, left)).toMatchObject({ kind: 'finish-plan', step: steps[4] });
    expect(nextTest(remote, bench, ranking, { ...left, optional: new Set([steps[4]]) })).toMatchObject({
      kind: 'finish-plan',
      step: steps[5],
    });
    expect(nextTest(remote, bench, ranking, { ...open, done: new Set(steps) })).toEqual({
      kind: 'certain',
      hypothesis: { kind: 'no-fault' },
    });
  });

  it('says where to look once no step would tell two apart', () => {
    const kind = kindNamed('vacuum-inline');
    const table = tableOf(kind, 'bench');
    // On the bench both leak while applied, and nothing else.
    const evidence = evidenceFor(table, 'vacuum-valve-leak', 0.4);
    const done = new Set(kind.plans[0].steps);
    const next = nextTest(kind, table, rank(kind, table, evidence), { ...open, done });
    if (next.kind !== 'open-it') throw new Error(next.kind);
    expect(next.between.flatMap((each) => (each.kind === 'fault' ? [each.fault] : [])).sort()).toEqual([
      'diaphragm-leak',
      'vacuum-valve-leak',
    ]);
    expect(next.parts.length).toBeGreaterThan(1);
  });

  it('tells more of what the complaint points to', () => {
    const best = (symptoms: readonly string[]) => {
      const next = nextTest(remote, bench, rank(remote, bench, { figures: [], points: [], symptoms }), open);
      return next.kind === 'test' ? next.worth.step : next.kind;
    };
    expect(best(['stop-lamp'])).toBe('stop-lamp-switch');
    expect(best(['hiss-held'])).not.toBe('stop-lamp-switch');
  });
});
