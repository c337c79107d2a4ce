import { decodeText } from './decode-text';
import { guessMapping } from './guess-mapping';
import { mappingQuestions } from './mapping-questions';
import { readRawLog } from './raw-log';

function columnsOf(text: string) {
  const read = readRawLog(text, 'log.csv');
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const { columns, noticed, bad } = read.value;
  return { columns: columns.map((column) => [...column]), noticed, bad };
}

describe('logs as ordinary loggers write them', () => {
  it('marks for no reading are none, and that is said', () => {
    const { columns, noticed } = columnsOf('time [s],p [kPa]\n0,1\n1,--\n2,-9999\n3,4\n');
    expect(columns[1]).toEqual([1, NaN, NaN, 4]);
    expect(noticed).toEqual([{ column: 1, what: 'missing', times: 2 }]);
  });

  it('words of a switch are its states', () => {
    const { columns } = columnsOf('time [s],lamp,contact\n0,OFF,open\n1,ON,closed\n2,on,Open\n');
    expect(columns.slice(1)).toEqual([
      [0, 1, 1],
      [0, 1, 0],
    ]);
  });

  it('a word of a switch beside figures is no state but a bad cell: an open sensor reads nothing, and not nought', () => {
    const { columns, bad, noticed } = columnsOf('time [s],p [kPa]\n0,1200\n1,OPEN\n2,1250\n3,open\n');
    expect(columns[1]).toEqual([1200, NaN, 1250, NaN]);
    expect(bad.map(({ line, text }) => [line, text])).toEqual([
      [3, 'OPEN'],
      [5, 'OPEN'],
    ]);
    expect(noticed).toEqual([]);
  });

  it.each([
    ['bars', 'time [s]|p [kPa]\n0|1.5\n1|2.5\n2|3\n'],
    ['bars around', '| time [s] | p [kPa] |\n| 0 | 1.5 |\n| 1 | 2.5 |\n| 2 | 3 |\n'],
    ['spaces', 'time   pressure\n 0.0    1.5\n 1.0    2.5\n 2.0    3\n 3.0    4\n'],
    ['wide spaces', 'time [s]    pressure [kPa]\n   0.0    1.5\n   1.0    2.5\n   2.0    3\n   3.0    4\n'],
  ])('cells parted by %s', (_by, text) => {
    expect(columnsOf(text).columns[1].slice(0, 3)).toEqual([1.5, 2.5, 3]);
  });

  it('a point before three figures beside decimal commas parts thousands; beside decimal points it does not', () => {
    const parted = columnsOf('time [s];p [kPa]\n0;998,5\n1;1.450\n');
    expect(parted.columns[1]).toEqual([998.5, 1450]);
    expect(parted.noticed).toEqual([{ column: 1, what: 'thousands', times: 1 }]);
    expect(columnsOf('time [s];p [kPa]\n0;0,5\n1;1.450\n2;12.5\n').columns[1]).toEqual([0.5, 1.45, 12.5]);
  });

  it('a clock runs on over midnight and over a changed hour, and what else runs backwards stays', () => {
    const { columns, noticed } = columnsOf('clock,p [kPa]\n23:59:58,1\n23:59:59,1\n00:00:00,1\n00:00:01,1\n');
    expect(columns[0].map((each) => each - columns[0][0])).toEqual([0, 1, 2, 3]);
    expect(noticed).toEqual([{ column: 0, what: 'clock-rolled', times: 1 }]);
    const changed = columnsOf('clock,p [kPa]\n02:59:50,1\n02:59:55,1\n02:00:00,1\n02:00:05,1\n').columns[0];
    expect(changed.map((each) => each - changed[0])).toEqual([0, 5, 10, 15]);
    const torn = columnsOf('clock,p [kPa]\n02:59:50,1\n02:59:55,1\n02:40:00,1\n').columns[0];
    expect(torn[2]).toBeLessThan(torn[1]);
  });

  it.each([
    ['with its mark', '\uFEFF', 'le'],
    ['without', '', 'le'],
    ['of the other order', '\uFEFF', 'be'],
    ['of the other order, without', '', 'be'],
  ])('a text of two bytes a sign is read, %s', (_how, mark, order) => {
    const text = 'time [s];p [kPa]\n0;1,5\n1;2,5\n';
    const bytes = Buffer.from(mark + text, 'utf16le');
    if (order === 'be') bytes.swap16();
    expect(decodeText(new Uint8Array(bytes)).replace('\uFEFF', '')).toBe(text);
  });

  it('a cell of fifty thousand figures is no figure, and takes no longer than any other', () => {
    const { bad } = columnsOf(`time [s],p [kPa]\n0,1\n1,${'7'.repeat(50_000)}x\n2,3\n`);
    expect(bad).toHaveLength(1);
  });
});

describe('units that a log leaves open', () => {
  const asks = (header: string, values: readonly number[], remembered = false) => {
    const read = readRawLog(`time [s];${header}\n${values.map((value, i) => `${i / 10};${value}`).join('\n')}\n`, 'l');
    if (!read.ok) throw new Error('unreadable');
    const guesses = guessMapping(read.value, ['supply_vacuum', 'output_pressure'], 101_325);
    const mapping = guesses.map(({ mapped }) => mapped);
    return mappingQuestions(read.value.headers, mapping, guesses, remembered).map(({ why }) => why);
  };
  const rising = (top: number) => Array.from({ length: 40 }, (_, i) => (top * i) / 39);

  it('no unit, one that nobody knows, and one that the figures fit badly are asked about', () => {
    expect(asks('brake pressure', rising(4000))).toEqual(['unit-open']);
    expect(asks('brake pressure (furlong)', rising(4000))).toEqual(['unit-unknown']);
    expect(asks('brake pressure (kPa)', rising(45))).toEqual(['unit-misfits']);
    expect(asks('booster vacuum (kPa)', rising(0.6))).toEqual(['unit-misfits']);
  });

  it('a unit that is answered leaves what else is open: weak vacuum without a unit may be absolute as well', () => {
    const weak = Array.from({ length: 40 }, (_, i) => 30 + i / 20);
    expect(asks('booster vacuum', weak)).toEqual(['unit-open', 'reference-open']);
  });

  it('one that fits is not, nor one that is remembered', () => {
    expect(asks('brake pressure (kPa)', rising(4500))).toEqual([]);
    expect(asks('brake pressure', rising(4000), true)).toEqual([]);
    // What the file calls by the name that it has here has the unit that it says.
    expect(asks('output_pressure [kPa]', rising(45))).toEqual([]);
  });

  it('whole numbers of time without a unit are asked about, parts of seconds are not', () => {
    const timed = (steps: (i: number) => number) => {
      const rows = Array.from({ length: 100 }, (_, i) => `${steps(i)};${i}`).join('\n');
      const read = readRawLog(`time;brake pressure (bar)\n${rows}\n`, 'l');
      if (!read.ok) throw new Error('unreadable');
      const guesses = guessMapping(read.value, ['output_pressure'], 101_325);
      return [guesses[0].mapped, guesses[0].inferred.includes('time-unit-open')];
    };
    expect(timed((i) => i)).toEqual([{ use: 'time', unit: 's' }, true]);
    expect(timed((i) => i * 0.1)).toEqual([{ use: 'time', unit: 's' }, false]);
    expect(timed((i) => i * 10_000)).toEqual([{ use: 'time', unit: 'ms' }, true]);
    expect(timed((i) => i * 50)).toEqual([{ use: 'time', unit: 'ms' }, false]);
  });
});
