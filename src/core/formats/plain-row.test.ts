import fc from 'fast-check';
import Papa from 'papaparse';
import { readPlainRow } from './plain-row';
import { readRawLog } from './raw-log';

const comma = { delimiter: ','.charCodeAt(0), decimalComma: false, points: true };
const semicolon = { delimiter: ';'.charCodeAt(0), decimalComma: true, points: true };
const columnsOf = (width: number, rows = 1) => Array.from({ length: width }, () => new Float64Array(rows));

describe('a row of plain figures', () => {
  it('gives every figure as Number would, to the last bit', () => {
    const figure = fc
      .tuple(fc.boolean(), fc.integer({ min: 0, max: 999_999_999 }), fc.integer({ min: 0, max: 999_999 }), fc.nat(6))
      .map(
        ([negative, whole, part, figures]) =>
          `${negative ? '-' : ''}${whole}${figures ? `.${String(part).padStart(6, '0').slice(0, figures)}` : ''}`,
      );
    fc.assert(
      fc.property(fc.array(figure, { minLength: 1, maxLength: 8 }), (cells) => {
        const columns = columnsOf(cells.length);
        expect(readPlainRow(cells.join(','), 0, comma, columns, 0)).toBe(cells.join(',').length);
        expect(columns.map((column) => column[0])).toEqual(cells.map(Number));
      }),
    );
  });

  it.each(['12e3', 'x', '1.2.3', '-', '.', '1 ', '+1', '0x10', '1234567890123456', '1,2', 'NaN'])(
    'leaves "%s" to be looked at closely',
    (cell) => {
      expect(readPlainRow(cell, 0, comma, columnsOf(1), 0)).toBe(-1);
    },
  );

  it('knows an empty cell, a decimal comma and both ends of a line', () => {
    const columns = columnsOf(3);
    expect(readPlainRow('1,5;;-0,25\r\n7', 0, semicolon, columns, 0)).toBe(12);
    expect(columns.map((column) => column[0])).toEqual([1.5, Number.NaN, -0.25]);
    expect(readPlainRow('1,2\r3', 0, comma, columnsOf(2), 0)).toBe(-1);
    expect(readPlainRow('1,2,3', 0, comma, columnsOf(2), 0)).toBe(-1);
    expect(readPlainRow('1', 0, comma, columnsOf(2), 0)).toBe(-1);
  });
});

describe('a log of figures, oddities and damage', () => {
  /** The slow way: every row through the CSV package, every cell through Number. */
  function slowly(text: string): { rows: number; bad: number; cells: (number | null)[] } {
    const [header, ...lines] = Papa.parse<string[]>(text, { delimiter: ',' }).data;
    const whole = lines.filter((cells) => cells.length === header.length);
    const number = (cell: string) => {
      const plain = cell.trim();
      if (plain === '') return Number.NaN;
      return /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/.test(plain) ? Number(plain) : null;
    };
    const cells = whole.flatMap((row) => row.map(number));
    const ragged = lines.filter((row) => row.length !== header.length && !(row.length === 1 && row[0].trim() === ''));
    return { rows: whole.length, bad: cells.filter((cell) => cell === null).length + ragged.length, cells };
  }

  it('is read as the CSV package and Number read it, row by row', () => {
    const cell = fc.oneof(
      { weight: 8, arbitrary: fc.double({ min: -1e6, max: 1e6, noNaN: true }).map((value) => value.toFixed(3)) },
      {
        weight: 1,
        arbitrary: fc.constantFrom('', ' 4 ', '1e-3', '+5', 'text', '-', '12345678901234567', '1.2.3', '.5', '7.'),
      },
    );
    const row = fc.oneof(
      { weight: 12, arbitrary: fc.array(cell, { minLength: 3, maxLength: 3 }) },
      { weight: 1, arbitrary: fc.array(cell, { minLength: 1, maxLength: 5 }) },
    );
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 30 }), fc.constantFrom('\n', '\r\n'), (rows, end) => {
        const text = ['a,b,c', ...rows.map((cells) => cells.join(','))].join(end);
        const read = readRawLog(text, 'log.csv');
        const slow = slowly(text);
        if (!read.ok) return expect(read.problems[0].code).toBe('empty-file');
        const { columns, rows: found, badCount } = read.value;
        expect({ rows: found, bad: badCount }).toEqual({ rows: slow.rows, bad: slow.bad });
        const cells = Array.from({ length: found }, (_, i) => columns.map((column) => column[i])).flat();
        expect(cells).toEqual(slow.cells.map((value) => value ?? Number.NaN));
      }),
      { numRuns: 300 },
    );
  });

  it('says how far it has come, and ends at the whole', () => {
    const told: number[] = [];
    const text = `time,a\n${'0.005,1.25\n'.repeat(400_000)}`;
    const read = readRawLog(text, 'log.csv', (share) => told.push(share));
    expect(read.ok && read.value.rows).toBe(400_000);
    expect(told.length).toBeGreaterThan(3);
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told.at(-1)).toBe(1);
  });
});
