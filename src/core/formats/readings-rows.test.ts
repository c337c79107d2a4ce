import { kindNamed } from '../families';
import { contextAt } from './site-file';
import { checkKind } from './unit-sheet';
import { readReadings } from './readings';

const kind = kindNamed('vacuum-inline');
const checked = checkKind(kind, 'minibus', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 0 }, '2026-11-23', 'bench');
const read = (rows: readonly string[]) =>
  readReadings(['step,characteristic,value,unit', ...rows].join('\n'), 'typed.csv', kind, context);

describe('readings that stand in rows', () => {
  it('are rows of the step’s table, in any order and as many as there are', () => {
    const rows = Array.from({ length: 12 }, (_, at) => [
      `assist-curve,output#${at + 1},${at * 0.4},MPa`,
      `assist-curve,force#${at + 1},${50 + at * 40},N`,
    ]).flat();
    const found = read(rows.reverse());
    if (!found.ok) throw new Error(JSON.stringify(found.problems));
    const dials = found.value.dials.get('assist-curve')!;
    expect(Object.keys(dials)).toHaveLength(24);
    expect(dials['output#12']).toBeCloseTo(4.4e6);
    expect(dials['force#12']).toBe(490);
  });

  it('a row beyond the last that a table may have is named', () => {
    const found = read(['assist-curve,force#75,100,N']);
    expect(found.ok).toBe(false);
    expect(JSON.stringify(found)).toContain('line 2, characteristic');
  });

  it('a figure that somebody worked out is still taken, but not beside rows', () => {
    expect(read(['assist-curve,run-out-force,604,N']).ok).toBe(true);
    const both = read(['assist-curve,run-out-force,604,N', 'assist-curve,force#1,100,N']);
    expect(JSON.stringify(both)).toContain('not half and half');
  });
});
