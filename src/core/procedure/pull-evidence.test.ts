import { dice, goodGauge, writeLog, type Signal } from '../../../tests/support/second-writer/logger';
import { findLeverPull, pullEvidence } from './pull-evidence';

const signal = (at: (t: number) => number, white: number): Signal => ({ at, gauging: { ...goodGauge, white } });

/** A pull of `up` seconds to 100 and back, its output twice that, with rows lost from one share of the way to another. */
function judged(up: number, lost: readonly [number, number] | null, rate = 50) {
  const lever = (t: number) => Math.max(0, Math.min(100, (100 * (t - 2)) / up, 100 - (100 * (t - 5 - up)) / up));
  const log = writeLog(
    { rod_force: signal(lever, 0.1), output_pressure: signal((t) => 2 * lever(t), 0.1) },
    {
      seconds: 2 * up + 9,
      rate,
      ...(lost ? { lost: [2 + lost[0] * up, 2 + lost[1] * up] as const } : {}),
    },
    dice(7),
  );
  const pull = findLeverPull(log, { lever: 'rod_force', outputs: ['output_pressure'], instruments: new Map() });
  const found = 'pull' in pull ? pullEvidence(pull) : pull;
  return found.kind === 'none' ? found.problem.code : 'evidence';
}

describe('what a log must show of a pull', () => {
  it('is a slow pull with nothing large missing', () => {
    expect(judged(10, null)).toBe('evidence');
    expect(judged(10, [0.4, 0.5])).toBe('evidence');
  });

  it('is none with a fifth of the way or more missing in one piece', () => {
    expect(judged(10, [0.4, 0.65])).toBe('gap-in-pull');
    expect(judged(20, [0.2, 0.45], 20)).toBe('gap-in-pull');
  });

  it('is none where the pull was over before the unit could follow, or its samples are too few', () => {
    expect(judged(1, null)).toBe('pulled-too-quickly');
    expect(judged(10, null, 1)).toBe('too-few-samples');
  });
});
