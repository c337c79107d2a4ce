import { guideStart } from '@/core/procedure/guide';
import { concatTraces, makeTrace, type Trace } from '@/core/traces/trace';
import type { GuidePhase } from '@/core/procedure/guide-phase';
import { until } from '../../../tests/support/shop';
import type { LiveInstrument } from './live-instrument';
import { RunRecorder, type RunFrame, type RunProgress } from './run-recorder';

const phases: readonly GuidePhase[] = [
  {
    instruction: { code: 'rest', seconds: 1 },
    controls: {},
    lever: { to: 0, seconds: 0 },
    end: { kind: 'seconds', seconds: 20 },
  },
];

/** A device that counts its samples at 100 Hz and reads the lever. */
function counter(): LiveInstrument {
  let samples = 0;
  let owed = 0;
  return {
    channels: ['input_pressure'],
    leverChannel: 'input_pressure',
    sampleRate: 100,
    read(elapsed, _controls, lever) {
      owed += elapsed * 100;
      const count = Math.floor(owed);
      owed -= count;
      const time = Float64Array.from({ length: count }, () => ++samples / 100);
      return makeTrace(time, { input_pressure: new Float64Array(count).fill(lever) });
    },
    snapshot: () => null,
  };
}

function recorder(
  append: (sequence: number, chunk: Trace, progress: RunProgress) => Promise<void>,
  finish = () => Promise.resolve(),
) {
  return new RunRecorder({
    instrument: counter(),
    phases,
    store: { append, finish },
    start: { guide: guideStart, lever: 0, byItself: false, rig: null },
    recorded: concatTraces([]),
    nextSequence: 0,
    leverMaximum: 1e6,
  });
}

/** A disk that is full while `full` says so, and what has been written on it. */
function disk() {
  const state = { full: false, chunks: [] as Trace[] };
  const append = (_sequence: number, chunk: Trace) => {
    if (state.full)
      return Promise.reject(Object.assign(new Error('database or disk is full'), { code: 'SQLITE_FULL' }));
    state.chunks.push(chunk);
    return Promise.resolve();
  };
  return { state, append };
}

const later = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

describe('run recorder', () => {
  it('writes at least once a second, and every screen gets every sample', async () => {
    const { state, append } = disk();
    const run = recorder(append);
    run.setSpeed(5);
    const seen: RunFrame[] = [];
    run.start();
    await later(300);
    run.listen((frame) => seen.push(frame));
    run.pull(2e6);
    await later(1600);
    expect(state.chunks.length).toBeGreaterThanOrEqual(1);
    const trace = await run.stop();
    const written = concatTraces(state.chunks);
    expect(written.time).toEqual(trace.time);
    const shown = seen.reduce((sum, frame) => sum + frame.samples.time.length, 0);
    expect(seen[0].kind).toBe('whole');
    expect(shown).toBe(trace.time.length);
    // The lever does not go beyond what the bench has.
    expect(Math.max(...trace.columns.input_pressure)).toBe(1e6);
  });

  it('keeps samples while the disk is full, says so, and writes them when there is room', async () => {
    const { state, append } = disk();
    state.full = true;
    const run = recorder(append);
    run.start();
    await until(() => run.status().storageProblem !== null);
    expect(run.status().storageProblem).toContain('the disk is full');
    expect(state.chunks).toEqual([]);
    state.full = false;
    const trace = await run.stop();
    expect(concatTraces(state.chunks).time).toEqual(trace.time);
    expect(run.status().storageProblem).toBeNull();
  });

  it('stopped while the disk is full it goes on as before, and can be stopped once there is room', async () => {
    const { state, append } = disk();
    const run = recorder(append);
    run.start();
    await later(100);
    state.full = true;
    await expect(run.stop()).rejects.toMatchObject({ code: 'SQLITE_FULL' });
    const before = run.status().elapsed;
    await until(() => run.status().elapsed > before);
    state.full = false;
    const trace = await run.stop();
    expect(concatTraces(state.chunks).time).toEqual(trace.time);
  });

  it('thrown away it writes nothing more, full disk or not', async () => {
    const { state, append } = disk();
    state.full = true;
    const run = recorder(append);
    run.start();
    await later(100);
    await run.abandon();
    state.full = false;
    await later(1200);
    expect(state.chunks).toEqual([]);
  });

  it('does not call a run complete before its last samples are written', async () => {
    const { state, append } = disk();
    state.full = true;
    let finished = 0;
    const run = recorder(append, () => (finished++, Promise.resolve()));
    run.setSpeed(50);
    run.start();
    await until(() => run.status().done && run.status().storageProblem !== null);
    expect(finished).toBe(0);
    state.full = false;
    await until(() => finished > 0);
    expect(finished).toBe(1);
  });

  it('tells every screen of a full disk, and each has every sample, whenever it came', async () => {
    const { state, append } = disk();
    const run = recorder(append);
    const screen = () => {
      const frames: RunFrame[] = [];
      const leave = run.listen((frame) => frames.push(frame));
      const samples = () => concatTraces(frames.map((frame) => frame.samples)).time;
      return { frames, leave, samples };
    };
    run.start();
    const early = screen();
    await until(() => state.chunks.length > 0);
    state.full = true;
    await until(() => run.status().storageProblem !== null);
    const late = screen();
    const gone = screen();
    gone.leave();
    await until(() => late.frames.length > 1);
    for (const { frames } of [early, late]) expect(frames.at(-1)?.status.storageProblem).toContain('the disk is full');
    expect(gone.frames).toHaveLength(1);
    state.full = false;
    await until(() => run.status().storageProblem === null);
    const trace = await run.stop();
    expect(early.samples()).toEqual(trace.time);
    expect(late.samples()).toEqual(trace.time);
    expect(late.frames[0].kind).toBe('whole');
    expect(concatTraces(state.chunks).time).toEqual(trace.time);
  });

  it('stands still once nothing was written for two seconds, and goes on where it stood', async () => {
    const { state, append } = disk();
    state.full = true;
    const run = recorder(append);
    run.start();
    await until(() => run.status().standsStill);
    const stood = run.status().elapsed;
    await later(600);
    // Nothing piles up meanwhile.
    expect(run.status().elapsed).toBe(stood);
    expect(run.status().storageProblem).toContain('the disk is full');
    state.full = false;
    await until(() => run.status().elapsed > stood);
    const { time } = await run.stop();
    expect(concatTraces(state.chunks).time).toEqual(time);
    expect([...time.slice(1)].every((at, i) => at - time[i] < 0.0101)).toBe(true);
    expect(run.status().lost).toEqual({ gaps: 0, seconds: 0 });
  }, 30_000);

  it('what passed while the process stood still is a gap in the trace, and counted', async () => {
    const { state, append } = disk();
    const run = recorder(append);
    run.start();
    await until(() => run.status().elapsed > 0.3);
    const from = performance.now();
    while (performance.now() - from < 3500);
    await until(() => run.status().lost.gaps > 0);
    const { gaps, seconds } = run.status().lost;
    const { time } = await run.stop();
    const widest = Math.max(...[...time.slice(1)].map((at, i) => at - time[i]));
    expect(gaps).toBe(1);
    expect(widest).toBeCloseTo(seconds + 0.01, 1);
    expect(seconds).toBeGreaterThan(0.8);
    expect(concatTraces(state.chunks).time).toEqual(time);
  });

  it('holds no more than a screen can show, however long it records', async () => {
    const run = recorder(() => Promise.resolve());
    run.setSpeed(400);
    run.start();
    await until(() => run.status().elapsed > 1 || run.status().done);
    let shown = 0;
    run.listen((frame) => (shown = Math.max(shown, frame.samples.time.length)))();
    // A screen gets the lowest and highest of it; the disk gets every sample.
    expect(shown).toBeLessThan(1_000);
    const { state, append } = disk();
    const other = recorder(append);
    other.setSpeed(400);
    other.start();
    await until(() => other.status().done && state.chunks.length > 0);
    await run.abandon();
    const { time } = concatTraces(state.chunks);
    expect(time.length).toBeGreaterThan(1_500);
    expect([...time.slice(1)].every((at, i) => at - time[i] < 0.0101)).toBe(true);
  });

  it('does not let go of a trace that it could not write', async () => {
    const { state, append } = disk();
    state.full = true;
    const run = recorder(append);
    run.start();
    await until(() => run.status().elapsed > 0.2);
    await expect(run.stop()).rejects.toThrow('disk is full');
    const frames: RunFrame[] = [];
    run.listen((frame) => frames.push(frame));
    expect(frames[0].samples.time.length).toBeGreaterThan(10);
    await run.abandon();
  });

  it('loses nothing that comes in while a slow disk is being written to', async () => {
    const chunks: Trace[] = [];
    const run = recorder(async (_sequence, chunk) => {
      await later(250);
      chunks.push(chunk);
    });
    run.setSpeed(3);
    run.start();
    await later(2600);
    const trace = await run.stop();
    const written = concatTraces(chunks);
    expect(written.time).toEqual(trace.time);
    expect([...written.time.slice(1)].every((time, i) => time - written.time[i] < 0.0101)).toBe(true);
  });

  /** A motor that runs while it is supplied, watched by a limit of so many seconds. */
  function motor(seconds: number) {
    const limit = { of: 'motor', channel: 'pump_on', seconds } as const;
    const commands: number[] = [];
    const chunks: Trace[] = [];
    let samples = 0;
    const run = new RunRecorder({
      instrument: {
        channels: ['input_pressure', 'pump_on'],
        leverChannel: 'input_pressure',
        sampleRate: 100,
        read(elapsed, controls, lever) {
          const count = Math.round(elapsed * 100);
          commands.push(controls.power);
          const time = Float64Array.from({ length: count }, () => ++samples / 100);
          return makeTrace(time, {
            input_pressure: new Float64Array(count).fill(lever),
            pump_on: new Float64Array(count).fill(controls.power),
          });
        },
        snapshot: () => null,
      },
      phases: [{ ...phases[0], controls: { power: 1 }, duty: limit }],
      store: { append: (_sequence, chunk) => (chunks.push(chunk), Promise.resolve()), finish: () => Promise.resolve() },
      start: { guide: guideStart, lever: 0, byItself: false, rig: null },
      recorded: concatTraces([]),
      nextSequence: 0,
      leverMaximum: 1e6,
    });
    return { run, limit, commands, chunks };
  }

  it('cuts a motor off at its limit, whoever pulls, and records that it stood', async () => {
    const { run, limit, commands, chunks } = motor(2);
    // A clock of its own: on a busy machine the process may stall, and what it does not see is not in the trace.
    let now = 0;
    const clock = jest.spyOn(performance, 'now').mockImplementation(() => (now += 33));
    run.setSpeed(10);
    run.start();
    run.pull(5e5);
    await until(() => run.status().done && chunks.length > 0);
    clock.mockRestore();
    const { cut, done, lever, controls } = run.status();
    expect({ cut, done, lever, power: controls.power }).toEqual({ cut: limit, done: true, lever: 0, power: 0 });
    expect(commands.at(-1)).toBe(0);
    const { pump_on: on } = concatTraces(chunks).columns;
    const ran = on.filter((each) => each === 1).length / 100;
    expect(ran).toBeGreaterThanOrEqual(limit.seconds);
    expect(ran).toBeLessThan(limit.seconds + 0.1);
    expect(on.at(-1)).toBe(0);
  });

  it('a motor’s limit counts on while the process stalls', async () => {
    const { run, limit, commands, chunks } = motor(1.5);
    run.start();
    await until(() => run.status().duty !== null && run.status().duty!.seconds > 0);
    const from = performance.now();
    while (performance.now() - from < 2500);
    await until(() => run.status().done && chunks.length > 0);
    expect(run.status().cut).toEqual(limit);
    expect(commands.at(-1)).toBe(0);
    // The motor was switched off as soon as anybody looked, not once its limit had been seen.
    expect(concatTraces(chunks).columns.pump_on.filter((each) => each === 1).length / 100).toBeLessThan(limit.seconds);
  });
});
