import { writeBenchLog } from './bench-log';
import { applyMapping, rowProblems, type LogNeeds, type MappedColumn } from './column-mapping';
import { guessMapping, headerFingerprint } from './guess-mapping';
import { readRawLog, type RawLog } from './raw-log';

const ambient = 85_400;
const needs: LogNeeds = { step: 'boost-curve', needs: ['input_pressure', 'output_pressure'], leastRows: 3 };
const wanted = ['input_pressure', 'output_pressure', 'supply_vacuum', 'control_vacuum'];

function raw(text: string): RawLog {
  const read = readRawLog(text, 'bench.csv');
  if (!read.ok) throw new Error('not readable');
  return read.value;
}

const mappingOf = (log: RawLog): MappedColumn[] => guessMapping(log, wanted, ambient).map((each) => each.mapped);

function traceOf(text: string, leaveOut = false) {
  const log = raw(text);
  const mapped = applyMapping(log, mappingOf(log), needs, { ambient, leaveOut });
  if (!mapped.ok) throw new Error(JSON.stringify(mapped.problems));
  return mapped.value;
}

describe('a log with headers of its own', () => {
  const text = [
    'Timestamp (ms);Inlet pressure (psi);Outlet pressure (psi);Booster vac (bar);Room',
    '0;0;1;-0,55;a',
    '100;10;12;-0,54;b',
    '200;20;30;-0,54;c',
    '300;30;60;-0,53;d',
  ].join('\n');

  it('is understood by its words, and the vacuum’s sign by its figures', () => {
    const guesses = guessMapping(raw(text), wanted, ambient);
    expect(guesses.map(({ mapped }) => (mapped.use === 'channel' ? mapped.channel : mapped.use))).toEqual([
      'time',
      'input_pressure',
      'output_pressure',
      'supply_vacuum',
      'own',
    ]);
    expect(guesses[3].inferred).toContain('sign-turned');
    const { trace } = traceOf(text);
    expect([...trace.time]).toEqual([0, 0.1, 0.2, expect.closeTo(0.3, 9)]);
    expect(trace.columns.supply_vacuum[0]).toBeCloseTo(55e3, 6);
    expect(trace.columns.output_pressure[2]).toBeCloseTo(30 * 6894.757, 3);
  });

  it('reads a vacuum that starts at the atmosphere as absolute', () => {
    const log = raw('t,MAP [kPa],P_in [kPa],P_out [kPa]\n0,85.3,0,0\n1,60,5,5\n2,35.1,9,9\n3,35,9,9');
    const guesses = guessMapping(log, wanted, ambient);
    expect(guesses[1].inferred).toContain('read-as-absolute');
    const mapped = applyMapping(log, mappingOf(log), needs, { ambient, leaveOut: false });
    expect(mapped.ok && mapped.value.trace.columns.supply_vacuum[3]).toBeCloseTo(50_400, 6);
  });

  it('a bench log of our own is taken as it is written', () => {
    const time = Float64Array.from([0, 1, 2, 3]);
    const columns = { input_pressure: time.map((t) => t * 1e5), output_pressure: time.map((t) => t * 2e5) };
    const log = raw(writeBenchLog({ time, columns }, { unit: 'x' }));
    for (const guess of guessMapping(log, wanted, ambient)) expect(guess.inferred).toEqual([]);
  });

  it('is remembered by its headers, whatever their case', () => {
    expect(headerFingerprint([' Time ', 'MAP'])).toBe(headerFingerprint(['time', 'map']));
    expect(headerFingerprint(['a', 'b'])).not.toBe(headerFingerprint(['b', 'a']));
  });
});

describe('headers of loggers on a stored-pressure system', () => {
  const wantedHere = ['accumulator_pressure', 'accumulator_pressure_2', 'pump_on', 'front_pressure', 'rear_pressure'];
  const guessed = (...headers: string[]) => {
    const rows = [0, 1, 2].map((t) => [t, ...headers.map(() => t)].join(';'));
    const log = raw([['Time (s)', ...headers].join(';'), ...rows].join('\n'));
    return guessMapping(log, wantedHere, ambient)
      .slice(1)
      .map(({ mapped }) => (mapped.use === 'channel' ? `${mapped.channel} ${mapped.unit}` : mapped.use));
  };

  it.each([
    ['Accu pressure (bar)', 'accumulator_pressure bar'],
    ['Sphere P [psi]', 'accumulator_pressure psi'],
    ['Front axle pressure (MPa)', 'front_pressure MPa'],
    ['P_rear [bar]', 'rear_pressure bar'],
    ['Return line pressure (kPa)', 'return_pressure kPa'],
    ['Battery (V)', 'supply_voltage V'],
    ['Motor current (A)', 'motor_current A'],
    ['Oil temp (°C)', 'fluid_temperature °C'],
    ['Pedal angle (°)', 'pedal_angle °'],
    ['Pump delivery (L/min)', 'flow L/min'],
    ['Red lamp', 'lamp_red 1'],
    ['Motor on', 'pump_on 1'],
    ['Mood', 'own'],
  ])('%s is %s', (header, expected) => expect(guessed(header)).toEqual([expected]));

  it('two of a kind go to the first and the second, whichever comes first', () => {
    expect(guessed('Store 1 (bar)', 'Store 2 (bar)')).toEqual([
      'accumulator_pressure bar',
      'accumulator_pressure_2 bar',
    ]);
    expect(guessed('Store 2 (bar)', 'Store (bar)')).toEqual(['accumulator_pressure_2 bar', 'accumulator_pressure bar']);
    expect(guessed('Front circuit (bar)', 'Rear circuit (bar)')).toEqual(['front_pressure bar', 'rear_pressure bar']);
  });

  it('a unit that cannot be of a channel keeps it from being taken for it', () => {
    expect(guessed('Accu pressure (°C)')).toEqual(['own']);
    expect(guessed('Pump (A)', 'Pump (bar)')).toEqual(['motor_current A', 'pump_pressure bar']);
  });
});

describe('damage', () => {
  const damaged = [
    'time [s],input_pressure [kPa],output_pressure [kPa],note',
    '0,0,0,a',
    '1,ten,1,b',
    '2,2,2,c',
    '',
    '3,3',
    '1.5,4,4,d',
    '4,,4,e',
    '5,5,5,f',
  ].join('\n');

  it('is listed by line', () => {
    const log = raw(damaged);
    expect(rowProblems(log, mappingOf(log), needs).map((problem) => ('line' in problem ? problem.line : 0))).toEqual([
      3, 6, 7,
    ]);
  });

  it('refuses the file, or leaves the named rows out and says so', () => {
    const log = raw(damaged);
    const refused = applyMapping(log, mappingOf(log), needs, { ambient, leaveOut: false });
    expect(refused.ok ? '' : refused.problems[0].code).toBe('not-a-number');
    const { trace, leftOut } = traceOf(damaged, true);
    expect(leftOut).toEqual(['line 3', 'line 6', 'line 7']);
    expect([...trace.time]).toEqual([0, 2, 4, 5]);
    expect(trace.columns.input_pressure[2]).toBeNaN();
  });
});
