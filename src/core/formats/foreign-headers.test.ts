import { readRawLog } from './raw-log';
import { guessMapping, type Inference } from './guess-mapping';
import { decodeText } from './decode-text';

const ambient = 85_400;

/** What the second column of a log with this header is read as: channel, unit, way, and what is said of it. */
function readAs(header: string, values: readonly (number | string)[], wanted: readonly string[] = []) {
  const rows = values.map((value, i) => `${i / 10};${value}`).join('\n');
  const read = readRawLog(`Zeit;${header}\n${rows}\n`, 'log.csv');
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const [, { mapped, inferred }] = guessMapping(read.value, wanted, ambient);
  if (mapped.use !== 'channel') return [mapped.use, ...inferred];
  const way = mapped.absolute ? 'absolute' : mapped.sign < 0 ? 'turned' : 'plain';
  return [mapped.channel, mapped.unit, way, ...inferred.filter((each) => each !== 'channel-from-words')];
}

const rising = (top: number) => Array.from({ length: 40 }, (_, i) => (top * i) / 39);
const supply = ['supply_vacuum', 'input_pressure', 'output_pressure'];

describe('headers of other loggers', () => {
  it.each<[string, number[], readonly string[], readonly string[]]>([
    ['supply_vacuum [kPa]', rising(58), supply, ['supply_vacuum', 'kPa', 'plain']],
    ['Supply vacuum (kPa)', rising(58), supply, ['supply_vacuum', 'kPa', 'plain']],
    ['SupplyVacuum inHg', rising(17), supply, ['supply_vacuum', 'inHg', 'plain']],
    ['Booster vac [inHg]', rising(17), supply, ['supply_vacuum', 'inHg', 'plain']],
    ['manifold vacuum [mbar]', rising(580), supply, ['supply_vacuum', 'mbar', 'plain']],
    ['manifold vacuum [hPa]', rising(580), supply, ['supply_vacuum', 'hPa', 'plain']],
    ['supply vacuum [cmHg]', rising(43), supply, ['supply_vacuum', 'cmHg', 'plain']],
    ['supply vacuum [mmHg]', rising(430), supply, ['supply_vacuum', 'mmHg', 'plain']],
    ['supply vacuum [kPa]', rising(-58), supply, ['supply_vacuum', 'kPa', 'turned', 'sign-turned']],
    [
      'supply vacuum [kPa abs]',
      rising(-58).map((v) => v + 85),
      supply,
      ['supply_vacuum', 'kPa', 'absolute', 'read-as-absolute'],
    ],
    [
      'supply vacuum [mbara]',
      rising(-580).map((v) => v + 850),
      supply,
      ['supply_vacuum', 'mbar', 'absolute', 'read-as-absolute'],
    ],
    [
      'supply vacuum [kPa]',
      rising(-58).map((v) => v + 85),
      supply,
      ['supply_vacuum', 'kPa', 'absolute', 'read-as-absolute'],
    ],
    ['supply vacuum', rising(58), supply, ['supply_vacuum', 'kPa', 'plain', 'unit-open']],
    ['supply vacuum [mWC]', rising(58), supply, ['supply_vacuum', 'kPa', 'plain', 'unit-unknown']],
    [
      'supply vacuum [kPa]',
      rising(580),
      supply,
      ['supply_vacuum', 'kPa', 'absolute', 'scale-questioned', 'read-as-absolute'],
    ],
    ['Input pressure [bar]', rising(30), supply, ['input_pressure', 'bar', 'plain']],
    ['Input pressure [barg]', rising(30), supply, ['input_pressure', 'bar', 'plain']],
    ['input pressure [psi]', rising(430), supply, ['input_pressure', 'psi', 'plain']],
    ['input pressure [psig]', rising(430), supply, ['input_pressure', 'psi', 'plain']],
    ['input pressure [psia]', rising(430), supply, ['input_pressure', 'psi', 'absolute', 'read-as-absolute']],
    ['Inlet [MPa]', rising(3), supply, ['input_pressure', 'MPa', 'plain']],
    ['Output [MPa]', rising(9), supply, ['output_pressure', 'MPa', 'plain']],
    ['output_pressure_bar', rising(90), supply, ['output_pressure', 'bar', 'plain']],
    ['Output pressure [MPa]', rising(1778), supply, ['output_pressure', 'MPa', 'plain', 'scale-questioned']],
    ['wheel pressure [kg/cm2]', rising(90), supply, ['output_pressure', 'kgf/cm2', 'plain']],
    [
      'wheel pressure [Pascal]',
      rising(9e6),
      supply,
      ['output_pressure', 'kPa', 'plain', 'unit-unknown', 'scale-questioned'],
    ],
    ['Pedal force [N]', rising(300), ['pedal_force'], ['pedal_force', 'N', 'plain']],
    ['pedal force [lbf]', rising(70), ['pedal_force'], ['pedal_force', 'lbf', 'plain']],
    ['foot load [kgf]', rising(30), ['pedal_force'], ['pedal_force', 'kgf', 'plain']],
    ['pedal force [N]', rising(-300), ['pedal_force'], ['pedal_force', 'N', 'turned', 'sign-turned']],
    ['pedal force [N]', rising(300_000), ['pedal_force'], ['pedal_force', 'N', 'plain', 'scale-questioned']],
    ['Pedal travel [mm]', rising(60), ['pedal_travel'], ['pedal_travel', 'mm', 'plain']],
    ['pedal travel [in]', rising(2.4), ['pedal_travel'], ['pedal_travel', 'in', 'plain']],
    ['accumulator pressure [bar]', rising(180), ['accumulator_pressure'], ['accumulator_pressure', 'bar', 'plain']],
    ['Store [psi]', rising(2600), ['accumulator_pressure'], ['accumulator_pressure', 'psi', 'plain']],
    ['motor current [A]', rising(40), ['motor_current'], ['motor_current', 'A', 'plain']],
    ['battery voltage [V]', rising(13), ['supply_voltage'], ['supply_voltage', 'V', 'plain']],
    ['flow [L/min]', rising(7), ['flow'], ['flow', 'L/min', 'plain']],
    ['engine running', rising(1).map(Math.round), ['engine_on'], ['engine_on', '1', 'plain']],
    ['ride height [mm]', rising(90), ['ride_height'], ['ride_height', 'mm', 'plain']],
    ['Bemerkung', rising(3), supply, ['own', 'not-understood']],
  ])('“%s” is read as what it is', (header, values, wanted, expected) => {
    expect(readAs(header, values, wanted)).toEqual(expected);
  });
});

describe('clocks of other loggers', () => {
  const timeOf = (header: string, cells: readonly string[], inHours = false) => {
    const text = `${header};supply vacuum [kPa]\n${cells.map((cell, i) => `${cell};${i}`).join('\n')}\n`;
    const read = readRawLog(text, 'log.csv');
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const [{ mapped, inferred }] = guessMapping(read.value, supply, ambient, inHours);
    if (mapped.use !== 'time') throw new Error(mapped.use);
    const column = read.value.columns[0];
    return { unit: mapped.unit, step: column[1] - column[0], inferred };
  };
  const steps = (from: number, step: number, count = 400) =>
    Array.from({ length: count }, (_, i) => String(from + i * step));

  it.each<[string, readonly string[], string, number, Inference[]]>([
    ['time [s]', steps(0, 0.1), 's', 0.1, []],
    ['Time (ms)', steps(0, 10), 'ms', 10, []],
    ['time', steps(0, 10), 'ms', 10, ['milliseconds-by-rate']],
    ['time', steps(0, 0.5), 's', 0.5, ['unit-assumed']],
    ['time', ['10:00:00.0', '10:00:00.1', '10:00:00.2'], 's', 0.1, ['clock']],
    ['time', ['10:00:00,0', '10:00:00,5', '10:00:01,0'], 's', 0.5, ['clock']],
    ['time', ['00:01.5', '00:02.0', '00:02.5'], 's', 0.5, ['clock']],
    ['time', ['11:59:59 AM', '12:00:00 PM', '12:00:01 PM'], 's', 1, ['clock']],
    ['timestamp', ['2026-11-24T10:00:00.00Z', '2026-11-24T10:00:00.25Z'], 's', 0.25, ['clock']],
    ['timestamp', ['2026-11-24 10:00:00', '2026-11-24 10:00:02'], 's', 2, ['clock']],
    ['timestamp', ['24.11.2026 10:00:00', '24.11.2026 10:00:01'], 's', 1, ['clock']],
    ['timestamp', ['11/24/2026 2:00:00 PM', '11/24/2026 2:00:03 PM'], 's', 3, ['clock']],
  ])('%s: %j', (header, cells, unit, step, inferred) => {
    const found = timeOf(header, cells);
    expect([found.unit, found.inferred]).toEqual([unit, inferred]);
    expect(found.step).toBeCloseTo(step, 3);
  });

  it('day numbers of a spreadsheet are days, and whole seconds of an hour’s soak no milliseconds', () => {
    expect(timeOf('time', steps(45_620.416, 1 / 864_000)).unit).toBe('d');
    expect(timeOf('time', steps(0, 10), true).unit).toBe('s');
  });
});

describe('tables of other loggers', () => {
  const read = (text: string) => {
    const raw = readRawLog(text, 'log.csv');
    if (!raw.ok) throw new Error(JSON.stringify(raw.problems));
    const { headers, headerLine, columns, rows, badCount, lineOf } = raw.value;
    return { headers, headerLine, rows, badCount, first: columns.map((column) => column[0]), lineOf };
  };
  const plain = 'time [s],supply vacuum [kPa]\n0,58\n0.1,57.9\n0.2,57.8\n';

  it.each([
    ['as it is', plain],
    ['carriage returns alone', plain.replaceAll('\n', '\r')],
    ['both', plain.replaceAll('\n', '\r\n')],
    ['said what parts its cells', `sep=;\n${plain.replaceAll(',', ';')}`],
    ['a logger’s own words first', `Logger 4000\nSerial number,12345\nStarted,2026-11-24 10:00\n\n${plain}`],
    ['units in a row of their own', 'time,supply vacuum\ns,kPa\n0,58\n0.1,57.9\n0.2,57.8\n'],
    ['tabs', plain.replaceAll(',', '\t')],
    ['decimal commas', plain.replaceAll(',', ';').replaceAll('.', ',')],
    ['cells in quotes', plain.replace(/[^,\n]+/g, '"$&"')],
    ['blank rows between', plain.replace('0.1', '\n0.1')],
  ])('%s', (_how, text) => {
    const found = read(text);
    expect(found.headers.map((header) => header.trim())).toEqual(['time [s]', 'supply vacuum [kPa]']);
    expect([found.rows, found.badCount, ...found.first]).toEqual([3, 0, 0, 58]);
  });

  it('parted thousands are figures', () => {
    expect(read('time [s];p [kPa]\n0;1 778\n1;1 779\n').first[1]).toBe(1778);
    expect(read('time [s];p [kPa]\n0;1.778,5\n1;1.779,5\n').first[1]).toBe(1778.5);
    expect(read('time [s],p [kPa]\n0,"1,778.5"\n1,"1,779"\n').first[1]).toBe(1778.5);
    expect(read("time [s];p [kPa]\n0;1'778.5\n1;1'779\n").first[1]).toBe(1778.5);
  });

  it('the line of a bad cell is its line in the file, whatever stands before the table', () => {
    const raw = readRawLog('Logger 4000\n\ntime [s],p [kPa]\n0,1\n1,x\n', 'log.csv');
    expect(raw.ok && raw.value.bad[0]).toMatchObject({ line: 5, text: 'x' });
    expect(raw.ok && raw.value.headerLine).toBe(3);
  });

  it('an older code for letters is read, and what is no text is not', () => {
    const bytes = Uint8Array.from('time [s],temperature [\u00b0C]\n0,20\n1,20\n', (sign) => sign.charCodeAt(0));
    expect(read(decodeText(bytes)).headers[1]).toBe('temperature [°C]');
    expect(readRawLog(decodeText(Uint8Array.from([80, 75, 0, 0, 1])), 'log.zip').ok).toBe(false);
  });

  it('a line of commas is refused for what it is', () => {
    const read = readRawLog(`${','.repeat(300_000)}\n1\n`, 'odd.csv');
    expect(read.ok ? null : read.problems[0]).toMatchObject({ code: 'too-many-columns' });
  });

  it('is read in time that grows with its length, whatever stands in it', () => {
    for (const text of [
      `a${' '.repeat(200_000)}b,c\n1,2\n`,
      `${','.repeat(300_000)}\n1\n`,
      `time [s],p\n0,${'1'.repeat(200_000)}\n`,
    ])
      expect(typeof readRawLog(text, 'odd.csv').ok).toBe('boolean');
  });
});

describe('a header that comes again and again', () => {
  const log = ['Clock;Road speed (mph);Pedal (mm)', '09:00:00.0;10,5;0', '09:00:00.1;10,6;1'];
  const again = [...log, log[0], '09:00:00.2;10,7;2', log[0], '09:00:00.3;x;3'];

  it('is left out and counted, and what is wrong after it still stands at its own line', () => {
    const read = readRawLog(again.join('\n'), 'drive.csv');
    if (!read.ok) throw new Error('it can be read');
    expect(read.value.rows).toBe(4);
    expect(read.value.repeatedHeaders).toBe(2);
    expect(read.value.bad).toEqual([{ row: 3, line: 7, column: 1, text: 'x' }]);
    expect(read.value.lineOf(2)).toBe(5);
    expect(Array.from(read.value.columns[2])).toEqual([0, 1, 2, 3]);
  });

  it('a row of other words is no header', () => {
    const read = readRawLog([...log, 'Clock;Road speed (mph);Pedal (cm)'].join('\n'), 'drive.csv');
    expect(read.ok && [read.value.repeatedHeaders, read.value.badCount]).toEqual([0, 3]);
  });
});
