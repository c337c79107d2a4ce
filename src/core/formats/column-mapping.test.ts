import fc from 'fast-check';
import { readProblemText } from '../wording/read-problem-text';
import { applyMapping, rowProblems, type MappedColumn } from './column-mapping';
import { mostBadCells, readRawLog, type RawLog } from './raw-log';

const needs = { step: 'boost-curve', needs: ['input_pressure'], leastRows: 2 };
const time: MappedColumn = { use: 'time', unit: 's' };
const channel = (id: string, unit: string, over: object = {}): MappedColumn => ({
  use: 'channel',
  channel: id,
  unit,
  sign: 1,
  absolute: false,
  ...over,
});
const mapping = [time, channel('input_pressure', 'kPa'), channel('output_pressure', 'kPa')];

function raw(text: string): RawLog {
  const read = readRawLog(text, 'log.csv');
  if (!read.ok) throw new Error(readProblemText(read.problems[0]));
  return read.value;
}

function mapped(text: string, columns: readonly MappedColumn[] = mapping, leaveOut = false, wants = needs) {
  const result = applyMapping(raw(text), columns, wants, { ambient: 85_400, leaveOut });
  if (!result.ok) throw new Error(readProblemText(result.problems[0]));
  return result.value;
}

const column = (text: string, columns: readonly MappedColumn[], id: string, wants = needs) => [
  ...mapped(text, columns, false, wants).trace.columns[id],
];

describe('what a column is', () => {
  const log = 't,a,b\n0,-50,1\n1,-60,2\n2,-70,3\n';
  const vacuum = { ...needs, needs: ['supply_vacuum'] };

  it('a vacuum logged as negative gauge pressure is turned round', () => {
    const columns = [time, channel('supply_vacuum', 'kPa', { sign: -1 }), { use: 'skip' } as const];
    expect(column(log, columns, 'supply_vacuum', vacuum)).toEqual([50e3, 60e3, 70e3]);
  });

  it('a vacuum logged as absolute pressure is taken from the local atmosphere', () => {
    const columns = [time, channel('supply_vacuum', 'kPa', { absolute: true }), { use: 'skip' } as const];
    expect(column('t,a,b\n0,25.4,1\n1,85.4,2\n', columns, 'supply_vacuum', vacuum)).toEqual([60e3, 0]);
  });

  it('an absolute pressure loses the atmosphere, a force has none to lose', () => {
    const columns = [time, channel('input_pressure', 'bar', { absolute: true }), { use: 'skip' } as const];
    const air = column('t,a,b\n0,1,1\n1,2,2\n', columns, 'input_pressure');
    expect(air[1] - air[0]).toBeCloseTo(1e5, 6);
    expect(air[0]).toBeCloseTo(1e5 - 85_400, 6);
    const both = [time, channel('input_pressure', 'bar'), channel('rod_force', 'N', { absolute: true })];
    expect(column('t,a,b\n0,1,1\n1,2,2\n', both, 'rod_force')).toEqual([1, 2]);
  });

  it('a time in milliseconds or minutes is in seconds afterwards', () => {
    const skip = { use: 'skip' } as const;
    const at = (unit: string) => [
      ...mapped(log, [{ use: 'time', unit }, channel('input_pressure', 'kPa'), skip]).trace.time,
    ];
    expect(at('ms')).toEqual([0, 0.001, 0.002]);
    expect(at('min')).toEqual([0, 60, 120]);
  });

  it('a column of the user’s own keeps its header and its figures', () => {
    const { columns } = mapped(log, [time, channel('input_pressure', 'kPa'), { use: 'own' }]).trace;
    expect([...columns.b]).toEqual([1, 2, 3]);
  });

  it('what the step needs must be among them, and so must the time', () => {
    const said = (columns: readonly MappedColumn[]) => {
      const result = applyMapping(raw(log), columns, needs, { ambient: 85_400, leaveOut: true });
      return result.ok ? '' : result.problems[0].code;
    };
    expect(said([channel('input_pressure', 'kPa'), { use: 'skip' }, { use: 'skip' }])).toBe('no-time-column');
    expect(said([time, channel('output_pressure', 'kPa'), { use: 'skip' }])).toBe('missing-channel');
  });
});

describe('columns that contradict each other', () => {
  const log = 't,a,input_pressure\n0,1,7\n1,2,8\n';

  it('two that are the same channel, or two clocks, are refused by name', () => {
    const said = (columns: readonly MappedColumn[]) => {
      const result = applyMapping(raw(log), columns, needs, { ambient: 85_400, leaveOut: true });
      return result.ok ? '' : readProblemText(result.problems[0]);
    };
    const input = channel('input_pressure', 'kPa');
    expect(said([time, input, input])).toContain('input_pressure');
    expect(said([time, input, input])).toContain('two columns');
    expect(said([time, input, time])).toContain('time');
  });

  it('a column of the user’s own never takes the place of a channel, whatever its header', () => {
    const { trace } = mapped(log, [time, channel('input_pressure', 'Pa'), { use: 'own' }]);
    expect([...trace.columns.input_pressure]).toEqual([1, 2]);
  });
});

describe('bad rows', () => {
  const log = 'time,a,b\n0,1,1\n\n1,two,2\n2,3\n3,4,x\n2.5,5,5\n4,6,6\n';

  it('are listed by their lines in the file, blank lines counted, in file order', () => {
    expect(rowProblems(raw(log), mapping, needs)).toEqual([
      { code: 'not-a-number', file: 'log.csv', line: 4, column: 'input_pressure', text: 'two' },
      { code: 'ragged-row', file: 'log.csv', line: 5, cells: 2, needs: 3 },
      { code: 'time-backwards', file: 'log.csv', line: 7, time: 2.5, before: 3 },
    ]);
  });

  it('stop a file unless they are left out, and then they are named', () => {
    const refused = applyMapping(raw(log), mapping, needs, { ambient: 85_400, leaveOut: false });
    expect(refused.ok).toBe(false);
    const kept = mapped(log, mapping, true);
    expect(kept.leftOut).toEqual(['line 4', 'line 5', 'line 7']);
    expect([...kept.trace.time]).toEqual([0, 3, 4]);
    expect([...kept.trace.columns.input_pressure]).toEqual([1e3, 4e3, 6e3]);
  });

  it('a bad cell in a channel that the step does not need is a missing sample, not a lost row', () => {
    expect(mapped(log, mapping, true).trace.columns.output_pressure[1]).toBeNaN();
  });

  it('an empty time is a bad row, once', () => {
    const problems = rowProblems(raw('time,a,b\n0,1,1\n,2,2\nsoon,3,3\n4,4,4\n'), mapping, needs);
    expect(problems.map((each) => ('line' in each ? each.line : 0))).toEqual([3, 4]);
  });

  it('too few that are left is too few rows', () => {
    const result = applyMapping(raw('time,a,b\n0,1,1\n1,x,1\n'), mapping, needs, { ambient: 85_400, leaveOut: true });
    expect(result.ok || result.problems[0]).toMatchObject({ code: 'too-few-rows', rows: 1, needs: 2 });
  });

  it('all are counted, though not all are listed', () => {
    const read = raw(`time,a,b\n${'0,x,1\n'.repeat(mostBadCells + 20)}`);
    expect(read.bad).toHaveLength(mostBadCells);
    expect(read.badCount).toBe(mostBadCells + 20);
  });

  it('wherever they stand, no good row is lost and none is moved', () => {
    const row = fc.constantFrom('good', 'text', 'ragged', 'blank');
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 40 }), (kinds) => {
        const lines = kinds.map((kind, i) => {
          if (kind === 'good') return `${i},${10 * i},1`;
          return kind === 'text' ? `${i},ten,1` : kind === 'ragged' ? `${i}` : '';
        });
        const text = `time,a,b\n${['0,0,0', ...lines, '99,990,1'].join('\n')}\n`;
        const kept = mapped(text, mapping, true);
        const good = [0, ...kinds.flatMap((kind, i) => (kind === 'good' ? [i] : [])), 99];
        expect([...kept.trace.time]).toEqual(good);
        expect([...kept.trace.columns.input_pressure]).toEqual(good.map((i) => 1e4 * i));
        const bad = kinds.flatMap((kind, i) => (kind === 'text' || kind === 'ragged' ? [`line ${i + 3}`] : []));
        expect(kept.leftOut).toEqual(bad);
      }),
    );
  });
});

describe('reading', () => {
  it('tells how far it is, never backwards, and ends at all', () => {
    const shares: number[] = [];
    const text = `time,a\n${'0.005,123456.789\n'.repeat(200_000)}`;
    readRawLog(text, 'log.csv', (share) => shares.push(share));
    expect(shares.length).toBeGreaterThan(2);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.at(-1)).toBe(1);
  });

  it('keeps what a header says of the recording, whatever stands between', () => {
    const read = raw('# rig: bench 2\n#recorded:2026-11-02: evening\n# a remark\n\ntime,a\n0,1\n');
    expect(read.metadata).toEqual({ rig: 'bench 2', recorded: '2026-11-02: evening' });
    expect(read.headerLine).toBe(5);
    expect(read.lineOf(0)).toBe(6);
  });
});
