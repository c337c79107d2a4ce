import { kindNamed } from '../families';
import { applyMapping } from '../formats/column-mapping';
import { guessMapping } from '../formats/guess-mapping';
import { readRawLog } from '../formats/raw-log';
import { makeTrace } from '../traces/trace';
import { scanToolLog, storedFaults, storedFaultsText } from './scan-tool';

describe('a stand-in scan tool', () => {
  const time = Float64Array.from({ length: 800 }, (_, i) => i / 200);
  const trace = makeTrace(time, {
    wheel_pressure_fl: time.map((t) => 2e6 * t),
    target_pressure_fl: time.map((t) => 2e6 * t + 50e3),
    motor_current: time.map(() => 18.4),
    supply_voltage: time.map(() => 12.345),
    rod_force: time.map(() => 300),
  });
  const text = scanToolLog(trace, (channel) => channel !== 'rod_force');

  it('writes with a clock, commas, its own units and signs, one channel a row', () => {
    const [header, first] = text.split('\n');
    expect(header).toBe('Clock;Wheel_front_left (bar);Target_front_left (bar);Motor_current (A);Supply_voltage (mV)');
    expect(first).toMatch(/^11:00:00,000;0,0;;;$/);
    expect(text).toContain(';;;-18,4;');
    expect(text).toContain(';12345');
    expect(text).not.toContain('Rod');
  });

  it('is read by the column mapper: units, decimal commas, the clock and the sign turned', () => {
    const raw = readRawLog(text, 'scan.csv');
    if (!raw.ok) throw new Error(JSON.stringify(raw.problems));
    const channels = Object.keys(trace.columns);
    const guesses = guessMapping(raw.value, channels, 85_400);
    const mapping = guesses.map((guess) => guess.mapped);
    const mapped = applyMapping(
      raw.value,
      mapping,
      { step: 'tracking', needs: [], leastRows: 10 },
      { ambient: 85_400, leaveOut: false },
    );
    if (!mapped.ok) throw new Error(JSON.stringify(mapped.problems));
    const { columns, time: read } = mapped.value.trace;
    const last = (id: string) => columns[id].filter((value) => !Number.isNaN(value)).at(-1);
    expect(last('supply_voltage')).toBeCloseTo(12.345, 3);
    expect(last('motor_current')).toBeCloseTo(18.4, 1);
    const at = columns.wheel_pressure_fl.findLastIndex((value) => !Number.isNaN(value));
    expect(columns.wheel_pressure_fl[at] / 1e6).toBeCloseTo(2 * (read[at] - read[0]), 1);
  });

  it('tells of a drive in miles and newton metres that count the other way, and the mapper finds them again', () => {
    const drive = makeTrace(time, {
      vehicle_speed: time.map((t) => 20 - t),
      requested_torque: time.map((t) => 400 * t),
      battery_charge: time.map(() => 0.93),
    });
    const raw = readRawLog(
      scanToolLog(drive, () => true),
      'scan.csv',
    );
    if (!raw.ok) throw new Error(JSON.stringify(raw.problems));
    expect(raw.value.headers.slice(1)).toEqual(['Speed (mph)', 'Requested_torque (Nm)', 'Battery_charge (%)']);
    const mapping = guessMapping(raw.value, Object.keys(drive.columns), 85_400).map((guess) => guess.mapped);
    const needs = { step: 'closure', needs: [], leastRows: 10 };
    const mapped = applyMapping(raw.value, mapping, needs, { ambient: 85_400, leaveOut: false });
    if (!mapped.ok) throw new Error(JSON.stringify(mapped.problems));
    const { columns } = mapped.value.trace;
    const first = (id: string) => columns[id].find((value) => !Number.isNaN(value));
    expect(first('vehicle_speed')).toBeCloseTo(20, 1);
    expect(first('battery_charge')).toBeCloseTo(0.93, 3);
    expect(Math.min(...columns.requested_torque.filter((value) => !Number.isNaN(value)))).toBeLessThan(-1000);
  });

  it('names circuits, not causes, and only of what its controller can see', () => {
    const kind = kindNamed('brake-by-wire', 'plunger');
    const stored = storedFaults(kind, [
      { id: 'outlet-valve-leak', severity: 0.4 },
      { id: 'air-in-circuit', severity: 0.4 },
      { id: 'stroke-sensor-implausible', severity: 1 },
    ]);
    expect(stored.map(({ circuit, state }) => [circuit, state])).toEqual([
      ['Inlet and outlet valves', 'stored'],
      ['Stroke sensor of the pedal', 'present'],
    ]);
    expect(storedFaultsText(stored)).toMatch(/^\d\d-\d\d inlet and outlet valves, stored; \d\d-\d\d stroke sensor/);
    expect(new Set(stored.map(({ code }) => code)).size).toBe(2);
  });
});
