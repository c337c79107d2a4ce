import { conditionWith } from '../contract/model';
import { everyKind } from '../families';
import { labelledSeed, randomSource } from '../physics/random';
import { exampleBench } from '../../../tests/support/varied-bench';
import { tableOf } from '../../../tests/support/tables';
import { madeFrom, observeCells, triedSeverities } from './make-signatures';
import type { Cell, SignatureTable } from './signature-table';

const everyTable = everyKind.flatMap((kind) =>
  kind.plans.map((plan) => [`${kind.sheet.example.name}, ${plan.id}`, kind, plan.id] as const),
);

/** Figures of a table that one unit does not bear out: further off than the units that it was made of differ from each other. */
function notBorneOut(table: SignatureTable, cells: readonly (Cell | null)[], shown: readonly Cell[]): string[] {
  return table.figures.flatMap(({ step, id, sound }, at) => {
    const kept = cells[at] ?? sound;
    const now = shown[at];
    const alike = kept.measured === 1 ? now.measured === 1 : true;
    const near = Math.abs(now.at - kept.at) <= 4 * kept.spread + 0.05;
    return alike && (kept.measured < 1 || near) ? [] : [`${step} ${id}: ${now.at}, in the table ${kept.at}`];
  });
}

describe('the committed tables are what the models do', () => {
  it.each(everyTable)('%s: no fault, scatter or method has changed since it was made', (_name, kind, plan) => {
    const { context } = exampleBench(kind, plan);
    const table = tableOf(kind, plan);
    expect(table.madeFrom).toBe(madeFrom(kind, context.unit));
    expect(Object.keys(table.faults).sort()).toEqual(kind.model.faults.map((fault) => fault.id).sort());
    expect(table.severities).toEqual([...triedSeverities]);
  });

  it.each(everyTable)('%s: a sound unit and one with a fault show what it says', (_name, kind, plan) => {
    const bench = exampleBench(kind, plan);
    const { unit } = bench.context;
    const table = tableOf(kind, plan);
    const faults = kind.model.faults.map((fault) => fault.id);
    const fault =
      faults[Math.floor(randomSource(labelledSeed(12, `${kind.family}${kind.value}`)).uniform() * faults.length)];
    const at = table.severities.indexOf(0.65);
    const look = (condition: unknown) => observeCells(kind, bench, table, { unit, condition });
    const sound = table.figures.map((figure) => figure.sound);
    expect(notBorneOut(table, sound, look(kind.model.sound(unit)))).toEqual([]);
    const faulty = conditionWith(kind.model, unit, [{ id: fault, severity: 0.65 }]);
    expect(notBorneOut(table, table.faults[fault][at], look(faulty))).toEqual([]);
  });
});
