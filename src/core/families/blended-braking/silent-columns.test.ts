import { dice } from '../../../../tests/support/second-writer/logger';
import { drawTool, driveThrough, noTrouble, writeDrive } from '../../../../tests/support/second-writer/drives';
import { standInUnit } from '../../../../tests/support/stand-in-unit';
import { evaluateStep } from '../../judging/evaluate-unit';
import { makeTrace, type Trace } from '../../traces/trace';
import type { BlendedUnit } from './geometry';

/*
 * Columns that a tool writes of what it does not have: one number all along, one column twice. Nothing is ever passed on them.
 */

const { kind, context, unit } = standInUnit<BlendedUnit>('blended-braking', 'vehicle');

/** A sound drive as another tool has it, with a column or more written over. */
function told(over: (log: Trace) => Readonly<Record<string, Float64Array>>): Trace {
  const luck = dice(23);
  const { vehicle } = unit;
  const drive = driveThrough(luck, vehicle, { stops: 14, panics: false, trouble: noTrouble });
  const tool = { ...drawTool(luck), rate: 50, wheelRate: 50, zeros: [0, 0, 0, 0], gains: [0, 0, 0, 0], regenGain: 0 };
  const log = writeDrive(luck, drive, vehicle, { ...tool, regenSign: 1, pressureNoise: 2e3 });
  return makeTrace(log.time, { ...log.columns, ...over(log) });
}

function judged(stepId: string, trace: Trace) {
  const step = kind.steps.find(({ id }) => id === stepId);
  if (step?.kind !== 'measured') throw new Error(`${stepId} is not measured`);
  const found = evaluateStep(kind, step, [{ analysed: () => step.analyse(trace, context) }], {
    context,
    policy: 'guarded',
  });
  const absent = found.characteristics.flatMap((each) =>
    each.kind === 'absent' ? [`${each.id}: ${each.problem.code}`] : [],
  );
  const notes = found.analyses.flatMap((each) => each.notes);
  return { verdict: found.verdict, absent, doubts: found.doubts.map(({ code }) => code), notes };
}

const flat = ({ time }: Trace, value: number) => new Float64Array(time.length).fill(value);

it('the drive that the columns are taken from is sound', () => {
  expect(
    judged(
      'log-check',
      told(() => ({})),
    ).verdict,
  ).toBe('pass');
  expect(
    judged(
      'closure',
      told(() => ({})),
    ).verdict,
  ).toBe('pass');
});

it('a wheel that stands still beside one that moves is no dry circuit, and no sound one', () => {
  const { verdict, absent } = judged(
    'closure',
    told((log) => ({ wheel_pressure_rr: flat(log, 0) })),
  );
  expect(verdict).toBe('undecided');
  expect(absent).toContain('closure-bias: gauge-never-moved');
});

it('a drive in which no friction brake was ever pressed says nothing of them', () => {
  const log = told(() => ({}));
  const wheels = Object.keys(log.columns).filter((id) => id.startsWith('wheel_pressure'));
  const { verdict, doubts } = judged(
    'closure',
    makeTrace(log.time, {
      ...log.columns,
      // The motor gives all that is asked.
      regen_torque: log.columns.requested_torque,
      ...Object.fromEntries(wheels.map((id) => [id, flat(log, 0)])),
    }),
  );
  expect(verdict).not.toBe('pass');
  expect(doubts).toContain('friction-never-used');
});

it.each([
  ['stands still', (log: Trace) => flat(log, 13), 'gauge-never-moved'],
  [
    'comes every half second',
    (log: Trace) => log.columns.vehicle_speed.map((v, i) => (i % 25 === 0 ? v : Number.NaN)),
    'column-too-slow',
  ],
])('a speed that %s does not show whether it falls away', (_, speed, problem) => {
  const { verdict, absent } = judged(
    'log-check',
    told((log) => ({ vehicle_speed: speed(log) })),
  );
  expect(verdict).toBe('undecided');
  expect(absent).toEqual([`speed-dropouts: ${problem}`]);
});

describe('order of the pressures', () => {
  const pressed = (log: Trace) => log.columns.pedal_travel.map((travel) => 8e7 * Math.max(0, travel));
  const noisy = (column: Float64Array) => column.map((value, i) => value + 4e3 * Math.sin(12.9898 * i));

  it('a store that is one number all along is no sensor', () => {
    const { absent } = judged(
      'pressure-order',
      told((log) => ({ accumulator_pressure: flat(log, 18e6) })),
    );
    expect(absent).toContain('store-margin: gauge-never-moved');
  });

  it('two masters that never move agree on nothing, and one column twice is one sensor', () => {
    const still = judged(
      'pressure-order',
      told((log) => ({ master_pressure: flat(log, 0), master_pressure_2: flat(log, 0) })),
    );
    expect(still.absent).toContain('master-difference: gauge-never-moved');
    const twice = told((log) => ({ master_pressure: pressed(log), master_pressure_2: pressed(log) }));
    expect(judged('pressure-order', twice).doubts).toContain('columns-alike');
    const two = told((log) => ({ master_pressure: pressed(log), master_pressure_2: noisy(pressed(log)) }));
    expect(judged('pressure-order', two).doubts).toEqual([]);
  });

  it('a master that stands still beside one that moves is a sensor that has failed', () => {
    const one = told((log) => ({ master_pressure: pressed(log), master_pressure_2: flat(log, 0) }));
    expect(judged('pressure-order', one).verdict).toBe('fail');
  });
});

/** What a logger makes of a column that it asks for ten times a second and writes a hundred times. */
const writtenAgain = (column: Float64Array, times: number) => column.map((_, i) => column[i - (i % times)]);

/** What a tool makes of it that draws lines between what it asked for. */
const lineBetween = (column: Float64Array, times: number) =>
  column.map((_, i) => {
    const from = i - (i % times);
    const to = Math.min(column.length - 1, from + times);
    return column[from] + ((column[to] - column[from]) * (i - from)) / times;
  });

describe.each([
  ['writes every sample again', 'again', writtenAgain],
  ['draws lines between samples', 'line', lineBetween],
] as const)('columns of which a logger %s', (_, between, over) => {
  it('a pedal that is asked for five times a second is stamped on by nobody', () => {
    const { verdict, absent } = judged(
      'panic-events',
      told((log) => ({ pedal_travel: over(log.columns.pedal_travel, 10) })),
    );
    expect({ verdict, absent }).toEqual({ verdict: 'undecided', absent: ['panic-delay: panics-not-told'] });
  });

  it('a torque that is asked for five times a second is too slow to be closed', () => {
    const { absent } = judged(
      'closure',
      told((log) => ({ regen_torque: over(log.columns.regen_torque, 10) })),
    );
    expect(absent).toContain('closure-bias: column-too-slow');
  });

  it('what they were written at is said', () => {
    const { notes } = judged(
      'log-check',
      told((log) => ({ regen_torque: over(log.columns.regen_torque, 10) })),
    );
    const said = notes.find((note) => note.code === 'column-rate' && note.channels.includes('regen_torque'));
    expect(said).toMatchObject({ channels: ['regen_torque'], over: { between, times: 10 } });
  });
});

describe('figures that hang on others', () => {
  it('a handover before which torque is missing proves nothing of dips', () => {
    // The motor’s torque in its own shaft’s newton metres: most of what it gave seems missing above the handover.
    const { verdict, doubts } = judged(
      'handover',
      told((log) => ({ regen_torque: log.columns.regen_torque.map((each) => each / 9) })),
    );
    expect({ verdict, doubts }).toEqual({ verdict: 'undecided', doubts: ['open-before-handover'] });
  });

  it('friction that gives many times its pressures is no figure of linings', () => {
    const { absent } = judged(
      'closure',
      told((log) =>
        Object.fromEntries(
          Object.entries(log.columns)
            .filter(([channel]) => channel.startsWith('wheel_pressure'))
            .map(([channel, column]) => [channel, column.map((each) => each / 6.9)]),
        ),
      ),
    );
    expect(absent).toContain('friction-gain: gives-too-much');
  });
});
