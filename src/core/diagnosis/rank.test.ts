import { everyKind, kindNamed } from '../families';
import { inOrderOptions } from '../procedure/look-step';
import { evidenceFor, pointsFor, shownEvidence, tableOf } from '../../../tests/support/tables';
import { hypothesisId } from './hypothesis';
import { unseenBy } from './unseen';
import { rank, severityOf, type Ranking } from './rank';
import { cellsAt } from './states';

const remote = kindNamed('vacuum-remote');
const bench = tableOf(remote, 'bench');
const named = (ranking: Ranking, id: string) => ranking.ranked.find((each) => hypothesisId(each.hypothesis) === id)!;
const first = (ranking: Ranking) => hypothesisId(ranking.ranked[0].hypothesis);

const everyTable = everyKind.flatMap((kind) =>
  kind.plans.map((plan) => [`${kind.sheet.example.name}, ${plan.id}`, kind, tableOf(kind, plan.id)] as const),
);

describe('ranking what may be the matter', () => {
  it.each(everyTable)('%s: a unit that shows what a sound one does has no fault', (_name, kind, table) => {
    const ranking = rank(kind, table, evidenceFor(table, null));
    const seen = ranking.ranked.filter(
      ({ hypothesis }) => hypothesis.kind !== 'fault' || !unseenBy(kind, table).includes(hypothesis.fault),
    );
    expect(seen[0].hypothesis.kind).toBe('no-fault');
  });

  it.each(everyTable)('%s: what a fault does that the plan shows is ranked among the first', (_name, kind, table) => {
    const unseen = unseenBy(kind, table);
    const faults = Object.keys(table.faults).filter((fault) => !unseen.includes(fault));
    const late = faults.flatMap((fault) => {
      const ranking = rank(kind, table, {
        ...evidenceFor(table, fault, 0.8),
        points: pointsFor(kind, table.plan, fault),
      });
      const at = ranking.ranked.findIndex((each) => hypothesisId(each.hypothesis) === fault);
      return at < 3 ? [] : [`${fault} comes ${at + 1}.`];
    });
    expect(late).toEqual([]);
    expect(faults.length).toBeGreaterThan(0);
  });

  it('gives shares that make one, whatever was found', () => {
    for (const fault of Object.keys(bench.faults)) {
      const { ranked } = rank(remote, bench, evidenceFor(bench, fault, 0.4));
      expect(ranked.reduce((sum, each) => sum + each.probability, 0)).toBeCloseTo(1, 9);
    }
  });

  it('finds how severe it is', () => {
    for (const severity of [0.3, 0.6, 0.9]) {
      const found = severityOf(
        named(rank(remote, bench, evidenceFor(bench, 'vacuum-valve-leak', severity)), 'vacuum-valve-leak'),
      );
      expect(Math.abs(found!.mean - severity)).toBeLessThan(2 * found!.standard + 0.1);
    }
  });

  it('lets what a step finds speak against a fault as clearly as for another', () => {
    const ranking = rank(remote, bench, evidenceFor(bench, 'vacuum-valve-leak'));
    const applied = (id: string) =>
      named(ranking, id).weighed.find(
        ({ finding }) => finding.kind === 'step' && finding.step === 'vacuum-hold-applied',
      )!.decibans;
    expect(applied('vacuum-valve-leak')).toBeGreaterThan(3);
    expect(applied('no-fault')).toBeLessThan(-10);
    expect(applied('control-piston-sticking')).toBeLessThan(-10);
  });

  it('says it of something that no fault of the list does', () => {
    // Two steps far from anything, each in a way of its own.
    const { figures } = evidenceFor(bench, null);
    const strange = figures.map(({ figure, seen }) => {
      const { step, id } = bench.figures[figure];
      const off =
        step === 'stop-lamp-switch' ? -1.2 : step === 'vacuum-hold-rest' ? -2.5 : id === 'boost-slope' ? 0.8 : 0;
      return { figure, seen: seen.kind === 'measured' ? { ...seen, at: seen.at + off } : seen };
    });
    const ranking = rank(remote, bench, { figures: strange, points: [], symptoms: null });
    expect(first(ranking)).toBe('not-in-this-list');
    expect(ranking.pairsTried).toBe(true);
  });

  it('tries two faults at once where none by itself explains what was found', () => {
    const [a, b] = [cellsAt(bench, 'vacuum-valve-leak', 0.5), cellsAt(bench, 'switch-out-of-range', 1)];
    const both = bench.figures.map(({ step }, at) => (step === 'stop-lamp-switch' ? b[at] : a[at]));
    const ranking = rank(remote, bench, shownEvidence(bench, both));
    expect(ranking.pairsTried).toBe(true);
    expect(first(ranking).split('+').sort()).toEqual(['switch-out-of-range', 'vacuum-valve-leak']);
    expect(rank(remote, bench, evidenceFor(bench, 'vacuum-valve-leak')).pairsTried).toBe(false);
  });

  it('starts from how common each fault is, as the workshop says, and from the driver’s words', () => {
    const nothing = { figures: [], points: [], symptoms: null };
    const share = (
      id: string,
      ...how: Parameters<typeof rank> extends [never, never, ...infer Rest] ? Rest : never[]
    ) => named(rank(remote, bench, nothing, ...how), id).probability;
    expect(share('vacuum-valve-leak')).toBeGreaterThan(share('return-spring-weak'));
    const rare = rank(remote, bench, nothing, { 'vacuum-valve-leak': 'hardly-ever' });
    expect(named(rare, 'vacuum-valve-leak').probability).toBeLessThan(share('vacuum-valve-leak') / 10);
    const heard = rank(remote, bench, { ...nothing, symptoms: ['hiss-held'] });
    const brings = remote.symptoms.find((symptom) => symptom.id === 'hiss-held')!.of;
    expect(['usually', 'always']).toContain(brings[first(heard)]);
  });

  it('hardly believes in the fault of a part that was just mended', () => {
    const nothing = evidenceFor(bench, 'vacuum-valve-leak', 0.6, ['vacuum-hold-applied']);
    const before = named(rank(remote, bench, nothing), 'vacuum-valve-leak').probability;
    const after = named(rank(remote, bench, nothing, {}, ['vacuum-valve-leak']), 'vacuum-valve-leak').probability;
    expect(after).toBeLessThan(before / 3);
  });

  it('charges a step that failed to all that leave it as it is: to nothing at all, and to every fault that does not do it', () => {
    const sound = evidenceFor(bench, null);
    const step = 'vacuum-hold-applied';
    const share = (id: string, failed: boolean) =>
      named(rank(remote, bench, { ...sound, failedOtherwise: failed ? [step] : [] }), id).probability;
    const against = (id: string, other: string) =>
      share(id, false) / share(other, false) / (share(id, true) / share(other, true));
    expect(against('no-fault', 'not-in-this-list')).toBeGreaterThan(3);
    expect(against('no-fault', 'vacuum-valve-leak')).toBeGreaterThan(20);
    expect(against('return-spring-weak', 'vacuum-valve-leak')).toBeGreaterThan(20);
    expect(against('no-fault', 'return-spring-weak')).toBeCloseTo(1, 1);
  });

  it('no fault leads where every step passed and neither a look nor the driver speaks for it', () => {
    const mild = evidenceFor(bench, 'vacuum-valve-leak', 0.6);
    const passed = { ...mild, allPassed: true };
    expect(first(rank(remote, bench, mild))).toBe('vacuum-valve-leak');
    expect(first(rank(remote, bench, passed))).toBe('no-fault');
    expect(named(rank(remote, bench, passed), 'no-fault').probability).toBeGreaterThanOrEqual(0.5 - 1e-9);
    const heard = rank(remote, bench, { ...passed, symptoms: ['hiss-held'] });
    expect(named(heard, 'vacuum-valve-leak').probability).toBeGreaterThan(0.5);
  });

  it('takes what the driver said as explained by what was mended, once nothing else is wrong', () => {
    const evidence = { ...evidenceFor(bench, null), symptoms: ['hiss-held'] };
    const share = (mended: readonly string[]) =>
      named(rank(remote, bench, evidence, remote.prevalence, mended), 'no-fault').probability;
    expect(share(['vacuum-valve-leak'])).toBeGreaterThan(share(['switch-out-of-range']));
  });

  it('looks at what was looked at', () => {
    const kind = kindNamed('vacuum-supply');
    const table = tableOf(kind, 'vehicle');
    const fault = kind.model.faults.find((each) => Object.keys(each.appearance).length > 0)!;
    const [[point, option]] = Object.entries(fault.appearance);
    const look = { step: 'look-over', point, option, options: inOrderOptions };
    const with_ = rank(kind, table, { figures: [], points: [look], symptoms: null });
    const without = rank(kind, table, { figures: [], points: [], symptoms: null });
    expect(named(with_, fault.id).probability).toBeGreaterThan(3 * named(without, fault.id).probability);
  });

  it('comes out the same twice', () => {
    const evidence = evidenceFor(bench, 'bypass-check-leak', 0.5);
    expect(rank(remote, bench, evidence).ranked).toEqual(rank(remote, bench, evidence).ranked);
  });
});
