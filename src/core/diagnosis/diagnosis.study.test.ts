import { readFileSync, writeFileSync } from 'node:fs';
import type { PlanStudied, RankedUnit } from '../../../scripts/studies/diagnoses';
import { study } from '../../../tests/support/study';
import { full } from '../../../tests/support/study-size';
import { everyKind } from '../families';
import { borneOutPlans, planKey } from './borne-out';

/*
 * Units of other sizes than those that the tables were made of, tested whole on the noisy rig; the same recorded by other tools and
 * hands; and units of other physics, whose logs no rig made. `npm run studies -- full` takes many of each fault and writes what comes out into docs/diagnosis.md.
 */

/** How many of every fault are tested (less than one: that share of the faults), of every how many plans, on how many processes. */
const sizes = full
  ? {
      rig: { ofEachFault: 4, every: 2, processes: 2 },
      another: { ofEachFault: 0.3, every: 2, processes: 2 },
      'other-physics': { ofEachFault: 6, every: 2, processes: 2 },
    }
  : {
      rig: { ofEachFault: 0.3, every: 5, processes: 2 },
      another: { ofEachFault: 0.1, every: 12, processes: 1 },
      'other-physics': { ofEachFault: 1, every: 2, processes: 2 },
    };

const writers = ['rig', 'another', 'other-physics'] as const;
type Writer = (typeof writers)[number];
const studied: Record<Writer, readonly PlanStudied[]> = { rig: [], another: [], 'other-physics': [] };

beforeAll(async () => {
  for (const writer of writers) {
    const { ofEachFault, every, processes } = sizes[writer];
    const parts = await Promise.all(
      Array.from({ length: processes }, (_, at) => study<PlanStudied[]>('diagnoses', writer, ofEachFault, at, every)),
    );
    studied[writer] = parts.flat();
  }
}, 10_800_000);

const unitsOf = (plans: readonly PlanStudied[]) => plans.flatMap((plan) => plan.units);
const faulty = (units: readonly RankedUnit[]) =>
  units.filter((unit) => unit.truth === 'fault' && unit.seen === 'shown');
const ofKind = (units: readonly RankedUnit[], truth: RankedUnit['truth']) =>
  units.filter((unit) => unit.truth === truth);
const share = <T>(of: readonly T[], holds: (each: T) => boolean) => of.filter(holds).length / of.length;
const first = (unit: RankedUnit) => unit.place === 1;

/**
 * Expected calibration error over ten bins of the leader's probability. Probabilities are right of units as common as the ranking takes
 * them to be, not of a study that draws every fault as often: each unit counts by its prior.
 */
function calibrationError(plans: readonly PlanStudied[]): number {
  const told = plans.flatMap(({ units }) => {
    const alike = (one: RankedUnit) => units.filter(({ truth, fault }) => truth === one.truth && fault === one.fault);
    return units.map((unit) => ({ unit, weight: unit.prior / alike(unit).length }));
  });
  const off = Array.from({ length: 10 }, (_, bin) =>
    told
      .filter(({ unit }) => Math.min(9, Math.floor(unit.probability * 10)) === bin)
      .reduce((sum, { unit, weight }) => sum + weight * (unit.probability - (first(unit) ? 1 : 0)), 0),
  );
  const whole = told.reduce((sum, { weight }) => sum + weight, 0);
  return off.reduce((sum, each) => sum + Math.abs(each), 0) / whole;
}

const median = (values: readonly number[]) =>
  values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;

const savedMinutes = (units: readonly RankedUnit[]) =>
  median(faulty(units).flatMap(({ minutes }) => (minutes && minutes.plan > 0 ? [minutes.next / minutes.plan] : [])));

/** Whether a severity was found within 15 %, or within its U; one that is only said to be more, or less, is. */
function severityFound({ extent }: RankedUnit): boolean {
  if (extent === null) return false;
  const room = Math.max(extent.expanded, 0.15 * Math.abs(extent.true));
  switch (extent.tells) {
    case 'about':
      return Math.abs(extent.found - extent.true) <= room;
    case 'more-than':
      return extent.true >= extent.found - room;
    case 'less-than':
      return extent.true <= extent.found + room;
  }
}

const withSeverity = (units: readonly RankedUnit[]) =>
  faulty(units).filter((unit) => unit.extent !== null && first(unit));

const percent = (value: number) => (Number.isNaN(value) ? '–' : `${(100 * value).toFixed(0)} %`);

/** One line of the table, of a plan or of all. */
function row(name: string, units: readonly RankedUnit[], notes: string): string {
  const faults = faulty(units);
  const cells = [
    name,
    String(faults.length),
    percent(share(faults, first)),
    percent(share(faults, (unit) => unit.place <= 3)),
    percent(share(faults, (unit) => unit.placeWithout <= 3)),
    percent(share(ofKind(units, 'sound'), first)),
    percent(share(ofKind(units, 'unlisted'), first)),
    percent(share(withSeverity(units), severityFound)),
    percent(savedMinutes(units)),
    notes,
  ];
  return `| ${cells.join(' | ')} |`;
}

function table(plans: readonly PlanStudied[]): string {
  const head = [
    '| unit and plan | faulty units | first | in the first three | a third of the steps missing: in the first three | sound: no fault first | unlisted first | severity found | minutes | not seen; not told apart |',
    '| --- | --- | --- | --- | --- | --- | --- | --- | --- | --- |',
  ];
  const notesOf = ({ unseen, twins, units }: PlanStudied) => {
    const overlooked = units.filter((unit) => unit.seen === 'overlooked').length;
    return [
      unseen.join(', '),
      overlooked > 0 ? `overlooked by looks: ${overlooked}` : '',
      twins.map((pair) => pair.join(' or ')).join(', '),
      `calibration ${calibrationError([{ unseen, twins, units, plan: '' }]).toFixed(2)}`,
    ]
      .filter(Boolean)
      .join('; ');
  };
  const units = unitsOf(plans);
  return [
    ...head,
    ...plans.map((plan) => row(plan.plan, plan.units, notesOf(plan))),
    row('**all**', units, `calibration error ${calibrationError(plans).toFixed(3)} over ${units.length} units`),
  ].join('\n');
}

/** Puts the tables of a full study between their marks in the page about it. */
function writeDown(): void {
  const page = 'docs/diagnosis.md';
  const [begin, end] = ['<!-- figures -->', '<!-- end of figures -->'];
  const text = readFileSync(page, 'utf8');
  const figures = `${begin}\n\nOn the stand-in rig:\n\n${table(studied.rig)}\n\nThe rig’s units, recorded by other tools and hands:\n\n${table(studied.another)}\n\nUnits of other physics, whose logs no rig and no model made:\n\n${table(studied['other-physics'])}\n\n${end}`;
  writeFileSync(page, text.slice(0, text.indexOf(begin)) + figures + text.slice(text.indexOf(end) + end.length));
}

describe('faults ranked, units held out', () => {
  it('prints what was found', () => {
    process.stdout.write(`\n${writers.map((writer) => `${writer}\n\n${table(studied[writer])}`).join('\n\n')}\n`);
    if (full) writeDown();
    expect(unitsOf(studied.rig).length).toBeGreaterThan(30);
  });

  it.each(writers)('%s: the right fault is first, or among three', (writer) => {
    const units = faulty(unitsOf(studied[writer]));
    expect(share(units, first)).toBeGreaterThanOrEqual(writer === 'rig' ? 0.85 : 0.8);
    expect(share(units, (unit) => unit.place <= 3)).toBeGreaterThanOrEqual(writer === 'rig' ? 0.97 : 0.92);
  });

  it.each(writers)('%s: a sound unit has no fault, and something unlisted is said to be that', (writer) => {
    const units = unitsOf(studied[writer]);
    expect(share(ofKind(units, 'sound'), first)).toBeGreaterThanOrEqual(writer === 'rig' ? 0.95 : 0.9);
    expect(share(ofKind(units, 'unlisted'), first)).toBeGreaterThanOrEqual(writer === 'rig' ? 0.8 : 0.75);
  });

  it.each(borneOutPlans)(
    '%s may say how sure it is: it names what is the matter with units of other physics',
    (key) => {
      const named = everyKind.flatMap((kind) =>
        kind.plans.flatMap(({ id }) => (planKey(kind, id) === key ? [`${kind.sheet.example.name}, ${id}`] : [])),
      );
      const units = unitsOf(studied['other-physics'].filter(({ plan }) => named.includes(plan)));
      expect(faulty(units).length).toBeGreaterThan(5);
      expect(share(faulty(units), first)).toBeGreaterThanOrEqual(0.85);
      expect(share(ofKind(units, 'sound'), first)).toBeGreaterThanOrEqual(0.95);
    },
  );

  it('the next best test is certain in half the minutes of the plan', () => {
    // Of a few dozen units the median itself is known to a tenth or two.
    expect(savedMinutes(unitsOf(studied.rig))).toBeLessThanOrEqual(full ? 0.5 : 0.7);
  });

  it('severities are found within 15 %, or within their U', () => {
    expect(share(withSeverity(unitsOf(studied.rig)), severityFound)).toBeGreaterThanOrEqual(0.85);
  });

  it('what is said to be likely is so as often', () => {
    // With few units in a bin the error of the estimate itself is a few hundredths.
    expect(calibrationError(studied.rig)).toBeLessThanOrEqual(full ? 0.05 : 0.1);
  });
});
