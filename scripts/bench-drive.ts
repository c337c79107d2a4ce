import { kindNamed } from '@/core/families';
import { readDrive } from '@/core/families/blended-braking/drive';
import type { Trace } from '@/core/traces/trace';
import { shuttle } from '../tests/support/driven-vehicle';
import { dice } from '../tests/support/second-writer/logger';
import { exampleBench } from '../tests/support/varied-bench';
import { drawTool, driveThrough, noTrouble, writeDrive } from '../tests/support/second-writer/drives';

/* How fast a drive is read: half a million rows of twenty columns. */

const rows = 500_000;

function longDrive(): Trace {
  const luck = dice(3);
  const one = driveThrough(luck, shuttle.vehicle, { stops: 40, panics: true, trouble: { ...noTrouble, dip: 200 } });
  const tool = { ...drawTool(luck), rate: 100, wheelRate: 50 };
  const part = writeDrive(luck, one, shuttle.vehicle, tool);
  const again = (column: Float64Array) => Float64Array.from({ length: rows }, (_, i) => column[i % column.length]);
  const wave = (period: number, size: number) =>
    Float64Array.from({ length: rows }, (_, i) => size * Math.sin(i / period));
  const flag = (period: number) => Float64Array.from({ length: rows }, (_, i) => ((i / period) % 2 < 1 ? 0 : 1));
  return {
    time: Float64Array.from({ length: rows }, (_, i) => i / 100),
    columns: {
      ...Object.fromEntries(Object.entries(part.columns).map(([id, column]) => [id, again(column)])),
      master_pressure: wave(300, 4e6),
      master_pressure_2: wave(300, 4.02e6),
      accumulator_pressure: wave(9000, 1e6).map((p) => 16e6 + p),
      battery_charge: wave(90_000, 20).map((charge) => 80 + charge),
      stop_switch: flag(700),
      stop_switch_2: flag(701),
      lamp_red: flag(90_000),
      lamp_amber: flag(80_000),
      yaw_rate: wave(500, 3),
      steering_angle: wave(800, 90),
      fluid_temperature: wave(9000, 20),
      air_temperature: wave(90_000, 5),
    },
  };
}

const kind = kindNamed('blended-braking');
const { context } = exampleBench(kind, 'vehicle');

/** What every step of the plan makes of the log, as when it has just been read. */
function analyseAll({ time, columns }: Trace): void {
  const read = { time, columns };
  for (const step of kind.steps) if (step.kind === 'measured') step.analyse(read, context);
}

/** Prints how long a whole drive takes to be read. */
export function driveSpeed(line: (what: string, value: string, aim: string) => void): void {
  const trace = longDrive();
  const shape = `${rows.toLocaleString('en')} rows, ${Object.keys(trace.columns).length} columns`;
  const took = () => {
    const from = performance.now();
    analyseAll(trace);
    return performance.now() - from;
  };
  const first = took();
  line(`a drive analysed by every step, without parsing (${shape})`, `${(first / 1000).toFixed(2)} s`, 'aim under 1 s');
  line('the same again', `${(took() / 1000).toFixed(2)} s`, 'aim under 1 s');
  line('of that, the torque alone', `${timeOf(() => void readDrive(trace, shuttle))} s`, '');
}

function timeOf(work: () => void): string {
  const from = performance.now();
  work();
  return ((performance.now() - from) / 1000).toFixed(2);
}
