import fc from 'fast-check';
import { readBenchLog, writeBenchLog } from './bench-log';
import { makeTrace } from '../traces/trace';
import { readProblemText } from '../wording/read-problem-text';

const needs = { step: 'boost-curve', needs: ['input_pressure', 'output_pressure'], leastRows: 2 };
const read = (text: string) => readBenchLog(text, 'log.csv', needs);
const message = (text: string) => {
  const result = read(text);
  return result.ok ? '' : readProblemText(result.problems[0]);
};
const head = 'time [s],input_pressure [kPa],output_pressure [kPa]\n';

describe('bench log', () => {
  it('gives back the trace it wrote', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 0, max: 1e7, noNaN: true }), fc.boolean()), { minLength: 3, maxLength: 40 }),
        (rows) => {
          const time = Float64Array.from(rows, (_, i) => i * 0.005);
          const input = Float64Array.from(rows, ([value, missing], i) => (missing && i > 0 ? Number.NaN : value));
          const trace = makeTrace(time, { input_pressure: input, output_pressure: input.map((value) => value * 2) });
          const result = read(writeBenchLog(trace, { source: 'test' }));
          if (!result.ok) throw new Error(readProblemText(result.problems[0]));
          for (const [i, value] of result.value.trace.columns.input_pressure.entries()) {
            if (Number.isNaN(input[i])) expect(value).toBeNaN();
            else expect(Math.abs(value - input[i])).toBeLessThanOrEqual(1e-9 * Math.abs(input[i]) + 1e-6);
          }
        },
      ),
    );
  });

  it('reads psi and inHg, semicolons with decimal commas, tabs, quotes, a byte-order mark and CRLF', () => {
    const logs = [
      'time [s],input_pressure [psi],output_pressure [kPa]\n0,100,1\n1,200,2\n',
      '\uFEFFtime [s];input_pressure [psi];output_pressure [kPa]\r\n0;100,0;1\r\n1;2e2;2\r\n',
      'time\tinput_pressure [psi]\toutput_pressure [kPa]\n0\t"100"\t1\n1\t200\t2\n',
    ];
    for (const log of logs) {
      const result = read(log);
      if (!result.ok) throw new Error(readProblemText(result.problems[0]));
      expect([...result.value.trace.columns.input_pressure]).toEqual([689475.7, 1378951.4]);
    }
  });

  it('keeps metadata, missing samples, repeated time stamps and columns of the user’s own', () => {
    const result = read(`# recorded: 2026-11-02\n${head.trim()},mood\n0,1,2,9\n0,,3,fine\n1,4,5,\n`);
    if (!result.ok) throw new Error(readProblemText(result.problems[0]));
    expect(result.value.metadata).toEqual({ recorded: '2026-11-02' });
    expect(result.value.repeatedTimes).toBe(1);
    expect(result.value.trace.columns.input_pressure[1]).toBeNaN();
    expect(result.value.trace.columns.mood[0]).toBe(9);
  });

  it.each([
    [
      'a missing channel',
      'time [s],input_pressure [kPa]\n0,1\n1,2\n',
      'line 1: step boost-curve needs the channel "output_pressure"',
    ],
    ['text in a number', `${head}0,1,2\n1,two,3\n`, 'line 3, column "input_pressure": "two" is not a number'],
    ['NaN', `${head}0,1,2\n1,NaN,3\n`, 'line 3, column "input_pressure": "NaN" is not a number'],
    ['time running backwards', `# a: b\n${head}0,1,2\n2,1,2\n1,1,2\n`, 'line 5, column "time": 1 s comes after 2 s'],
    ['a short row', `${head}0,1,2\n1,1\n`, 'line 3: 2 cells where the header has 3'],
    ['too few rows', `${head}0,1,2\n`, '1 rows; step boost-curve needs at least 2'],
    ['a binary file', 'ELF\u0000\u0001', 'this is not a text file'],
    ['an empty file', '# only: a comment\n', 'holds no rows'],
    [
      'an unknown unit',
      'time [s],input_pressure [cubits],output_pressure [kPa]\n0,1,2\n',
      'no measurement unit "cubits"',
    ],
    ['a unit of another kind', 'time [s],input_pressure [mm],output_pressure [kPa]\n0,1,2\n', 'needs a unit like kPa'],
    ['no time', 'input_pressure [kPa],output_pressure [kPa]\n1,2\n', 'no "time" column'],
    [
      'a channel twice',
      'time,input_pressure [kPa],input_pressure [kPa],output_pressure [kPa]\n0,1,1,2\n',
      'stands in two columns',
    ],
    ['an empty needed column', `${head}0,,2\n1,,3\n`, 'needs the channel "input_pressure", and its column is empty'],
  ])('names the place of %s', (_what, log, expected) => {
    expect(message(log)).toContain('log.csv');
    expect(message(log)).toContain(expected);
  });
});
