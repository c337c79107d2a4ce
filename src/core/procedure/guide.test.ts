import { liveFeed } from './step-definition';
import fc from 'fast-check';
import { everyKind } from '../families';
import type { GuidePhase, PhaseEnd } from './guide-phase';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { advanceGuide, controlsIn, guideDone, guideSeconds, guideStart, leverByItself, type GuideState } from './guide';
import { restControls } from '../physics/bench-controls';

const rest = { code: 'rest', seconds: 1 } as const;
const phase = (end: PhaseEnd, over: Partial<GuidePhase> = {}): GuidePhase => ({
  instruction: rest,
  controls: {},
  lever: { to: 0, seconds: 0 },
  end,
  ...over,
});
const seconds = (many: number, over: Partial<GuidePhase> = {}) => phase({ kind: 'seconds', seconds: many }, over);
const nothing = { input: 0, lever: 0, readings: {} };

/** The state after the guide has looked at each of the given readings, 0.1 s apart. */
function after(
  phases: readonly GuidePhase[],
  looks: readonly Partial<typeof nothing>[],
  from = guideStart,
): GuideState {
  return looks.reduce<GuideState>((state, look) => advanceGuide(phases, state, { dt: 0.1, ...nothing, ...look }), from);
}

describe('end of a phase', () => {
  it('a time has gone by', () => {
    const phases = [seconds(0.25)];
    expect(guideDone(phases, after(phases, [{}, {}]))).toBe(false);
    expect(guideDone(phases, after(phases, [{}, {}, {}]))).toBe(true);
  });

  it.each([
    ['input-above', [4, 4.9], 5],
    ['input-below', [6, 5.1], 5],
  ] as const)('%s waits for the level, and the level itself is enough', (kind, short, level) => {
    const phases = [phase({ kind, level: 5 })];
    expect(
      guideDone(
        phases,
        after(
          phases,
          short.map((input) => ({ input })),
        ),
      ),
    ).toBe(false);
    expect(guideDone(phases, after(phases, [{ input: level }]))).toBe(true);
  });

  it('a hold lasts without a break, and a slip starts it again', () => {
    const phases = [phase({ kind: 'input-held', level: 1e6, tolerance: 5e4, seconds: 0.3 })];
    const held = { input: 1.04e6 };
    expect(after(phases, [held, held, { input: 1.2e6 }]).held).toBe(0);
    expect(guideDone(phases, after(phases, [held, held, { input: 1.2e6 }, held, held]))).toBe(false);
    expect(guideDone(phases, after(phases, [held, held, held, held]))).toBe(true);
  });

  it.each([
    ['above', [1, 2.9], 3],
    ['below', [5, 3.1], 3],
  ] as const)('a reading goes %s its level, or its time is up', (side, short, level) => {
    const phases = [phase({ kind: 'reading', channel: 'supply_vacuum', side, level: 3, atMost: 1 })];
    const read = (value: number) => ({ readings: { supply_vacuum: value } });
    expect(guideDone(phases, after(phases, short.map(read)))).toBe(false);
    expect(guideDone(phases, after(phases, [read(level)]))).toBe(true);
    expect(
      guideDone(
        phases,
        after(
          phases,
          Array.from({ length: 11 }, () => read(short[0])),
        ),
      ),
    ).toBe(true);
  });

  it('a switch has gone the way that is waited for, as often as that; where it stood at first is no switching', () => {
    const phases = [phase({ kind: 'switched', channel: 'pump_on', to: 1, times: 2, atMost: 60 })];
    const looks = (...states: number[]) => states.map((pump_on) => ({ readings: { pump_on } }));
    expect(after(phases, looks(1, 1, 1)).switched).toBe(0);
    expect(after(phases, looks(1, 0, 1, 0)).switched).toBe(1);
    expect(guideDone(phases, after(phases, looks(1, 0, 1, 0, 1)))).toBe(true);
  });

  it('the next phase begins with fresh counts and the lever where it stood', () => {
    const phases = [seconds(0.1), seconds(5)];
    expect(after(phases, [{ lever: 7 }])).toEqual({ ...guideStart, phase: 1, leverFrom: 7 });
  });

  it('nothing moves a guide that is done', () => {
    const done = after([seconds(0.1)], [{}]);
    expect(after([seconds(0.1)], [{ input: 9 }, { input: 3 }], done)).toBe(done);
  });
});

describe('duty limit', () => {
  const limit = { of: 'motor', channel: 'pump_on', seconds: 0.35 } as const;
  const running = { readings: { pump_on: 1 } };
  const standing = { readings: { pump_on: 0 } };
  const phases = [seconds(10, { duty: limit, controls: { power: 1 } }), seconds(10, { duty: limit })];

  it('ends the step once it is used up, and switches everything off', () => {
    const before = after(phases, [running, running, running]);
    expect(before.cut).toBeNull();
    expect(controlsIn(phases, before, 0).power).toBe(1);
    const cut = after(phases, [running], before);
    expect(cut.cut).toBe(limit);
    expect(guideDone(phases, cut)).toBe(true);
    expect(controlsIn(phases, cut, 123)).toEqual(restControls);
    expect(leverByItself(phases, cut)).toBe(0);
  });

  it('counts afresh after a rest', () => {
    expect(after(phases, [running, running, running, standing, running, running, running]).cut).toBeNull();
  });

  it('goes on over the end of a phase: an instruction is no rest for a motor', () => {
    const short = [seconds(0.2, { duty: limit }), seconds(10, { duty: limit })];
    expect(after(short, [running, running, running]).cut).toBeNull();
    expect(after(short, [running, running, running, running]).cut).toBe(limit);
  });

  it('whatever the motor does, it never runs longer than the limit and a look', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { maxLength: 60 }), (on) => {
        let state = guideStart;
        let longest = 0;
        let now = 0;
        for (const each of on) {
          if (guideDone(phases, state)) break;
          state = after(phases, [each ? running : standing], state);
          now = each ? now + 0.1 : 0;
          longest = Math.max(longest, now);
        }
        expect(longest).toBeLessThan(limit.seconds + 0.1);
        expect(state.cut !== null).toBe(longest >= limit.seconds);
      }),
    );
  });
});

describe('lever of a rig that pulls by itself', () => {
  it('moves evenly from where it stood, and stays where it was told', () => {
    const phases = [seconds(20, { lever: { to: 10, seconds: 4 } })];
    const at = (elapsed: number) => leverByItself(phases, { ...guideStart, leverFrom: 2, elapsed });
    expect([0, 1, 2, 4, 9].map(at)).toEqual([2, 4, 6, 10, 10]);
  });

  it('jumps where no time is given', () => {
    expect(leverByItself([seconds(5, { lever: { to: 3, seconds: 0 } })], guideStart)).toBe(3);
  });

  it('strokes there and back, one stroke each so many seconds, and never beyond', () => {
    const phases = [seconds(20, { lever: { to: 8, seconds: 1, every: 4 } })];
    const at = (elapsed: number) => leverByItself(phases, { ...guideStart, elapsed });
    expect(at(0)).toBe(0);
    expect(at(1)).toBe(8);
    expect(at(2)).toBe(8);
    expect(at(3)).toBe(0);
    expect(at(5)).toBe(8);
    for (let t = 0; t < 12; t += 0.05) {
      expect(at(t)).toBeGreaterThanOrEqual(0);
      expect(at(t)).toBeLessThanOrEqual(8);
    }
  });

  it('waits for strokes until they are done, however late the hand begins', () => {
    const phases = [
      seconds(0, { lever: { to: 8, seconds: 1, every: 4 }, end: { kind: 'strokes', level: 8, times: 2, every: 4 } }),
    ];
    const move = (state: GuideState, input: number, dt = 0.5) =>
      advanceGuide(phases, state, { dt, input, lever: input, readings: {} });
    let state = guideStart;
    for (let t = 0; t < 600; t++) state = move(state, 0);
    expect(guideDone(phases, state)).toBe(false);
    // A half-hearted push is no stroke; nor is one that was not let go.
    for (const input of [3, 0, 7, 5, 7]) state = move(state, input);
    expect(state.switched).toBe(0);
    for (const input of [0, 8, 0]) state = move(state, input);
    expect(guideDone(phases, state)).toBe(true);
  });

  it('rests where the last phase left it', () => {
    const phases = [seconds(1, { lever: { to: 6, seconds: 1 } })];
    expect(leverByItself(phases, { ...guideStart, phase: 1 })).toBe(6);
    expect(leverByItself([], guideStart)).toBe(0);
  });
});

describe('controls and length of a guide', () => {
  it('what a phase does not set is at rest', () => {
    expect(controlsIn([seconds(1, { controls: { source: 1 } })], guideStart, 4)).toEqual({
      ...restControls,
      source: 1,
      lever: 4,
    });
  });

  it('adds up what each phase takes at most', () => {
    expect(
      guideSeconds([
        seconds(3),
        phase({ kind: 'reading', channel: 'flow', side: 'above', level: 1, atMost: 20 }),
        phase({ kind: 'switched', channel: 'pump_on', to: 1, times: 2, atMost: 100 }),
        phase({ kind: 'input-held', level: 1, tolerance: 1, seconds: 5 }, { lever: { to: 1, seconds: 2 } }),
        phase({ kind: 'input-above', level: 1 }, { lever: { to: 1, seconds: 30 } }),
      ]),
    ).toBe(3 + 20 + 100 + 7 + 30);
  });

  const guides = everyKind.flatMap((kind) => {
    const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
    if (!checked.ok) throw new Error(`${kind.family}: the example is not valid`);
    return kind.plans.flatMap((plan) => {
      const context = contextAt(checked.value, { altitudeM: 1420, benchVolumeCm3: 600 }, '2026-11-23', plan.id);
      return plan.steps.flatMap((id) => {
        const step = kind.steps.find((each) => each.id === id);
        return step?.kind === 'measured' && step.feeds.live
          ? [[kind.family, plan.id, id, liveFeed(step).guide(context)] as const]
          : [];
      });
    });
  });

  it.each(guides)(
    '%s, %s, %s: every phase can end, and a pump is never left without its limit',
    (_f, _p, _s, phases) => {
      expect(phases.length).toBeGreaterThan(0);
      for (const { end, lever, duty, controls } of phases) {
        if (end.kind === 'input-above') expect(lever.to).toBeGreaterThanOrEqual(end.level);
        if (end.kind === 'input-below') expect(lever.to).toBeLessThanOrEqual(end.level);
        if (end.kind === 'input-held') expect(Math.abs(lever.to - end.level)).toBeLessThanOrEqual(end.tolerance);
        if (end.kind === 'reading' || end.kind === 'switched') expect(end.atMost).toBeGreaterThan(0);
        if (controls['dead-head'] === 1) expect(duty?.of).toBe('dead-head');
        if (duty) expect(duty.seconds).toBeGreaterThan(0);
      }
      expect(Number.isFinite(guideSeconds(phases))).toBe(true);
    },
  );
});
