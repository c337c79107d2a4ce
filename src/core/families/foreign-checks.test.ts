import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { evaluateStep } from '../judging/evaluate-unit';
import type { MeasuredStep } from '../procedure/step-definition';
import {
  checkValveLog,
  pressureHoldLog,
  type PressureStory,
  type ValveStory,
} from '../../../tests/support/second-writer/hold-logs';
import { dice, goodGauge, type Dice } from '../../../tests/support/second-writer/logger';
import { count, emptyTally } from '../../../tests/support/second-writer/tally';
import { someVacuumGauge } from '../../../tests/support/second-writer/vacuum-hold';
import { makeTrace } from '../traces/trace';
import { findFamily } from '.';

const logs = 20;

function bench(id: string, stepId: string) {
  const [kind] = findFamily(id)!.kinds;
  const checked = checkKind(kind, 'foreign', kind.sheet.example.spec, 'foreign');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  const context = contextAt(checked.value, site, '2026-11-23', kind.plans[0].id);
  const step = kind.steps.find((each) => each.id === stepId) as MeasuredStep<unknown>;
  return (trace: Parameters<typeof step.analyse>[0]) =>
    evaluateStep(kind, step, [{ analysed: () => step.analyse(trace, context) }], { context, policy: 'guarded' });
}

/** At least nine sound units of ten pass where the log is as good as one is made, and nothing is wrong without a word. */
function expectHonest(tally: ReturnType<typeof emptyTally>): void {
  expect(tally.wrongs.filter((each) => !each.startsWith('(sound)'))).toEqual([]);
  if (tally.soundWellMeasured > 0) expect(tally.soundPassed / tally.soundWellMeasured).toBeGreaterThanOrEqual(0.9);
}

const gaugeOf = (luck: Dice) => ({ ...someVacuumGauge(luck), division: luck.oneOf([1, 10]) });

describe.each(['vacuum-inline', 'vacuum-supply'])('check valves of %s that no rig tried', (family) => {
  const judge = bench(family, 'check-valve');
  it.each<ValveStory>(['in-order', 'never-opened', 'no-side-gauge', 'no-vacuum', 'cut-short'])('%s', (story) => {
    const tally = emptyTally();
    const luck = dice(story.length * 31 + family.length);
    for (let n = 0; n < logs; n++) {
      const sound = luck.chance(0.5);
      const valveLoss = sound ? luck.between(0, 300) : luck.between(1_900, 9_000);
      const unitLoss = luck.between(0, 1_500);
      const trace = checkValveLog(
        {
          story,
          seconds: 15,
          supply: 56_000,
          unitLoss,
          valveLoss,
          gauging: gaugeOf(luck),
          rate: luck.oneOf([5, 20, 100]),
        },
        luck,
      );
      const shown = story === 'in-order';
      const wrong = [
        ...(sound && shown ? [] : (['pass'] as const)),
        ...(!sound && (shown || story === 'no-side-gauge') ? [] : (['fail'] as const)),
      ];
      count(tally, judge(trace), { wrong, shouldPass: sound && shown }, `${story} ${valveLoss.toFixed(0)} Pa`);
    }
    expectHonest(tally);
  });

  it('a log that begins before its vacuum stands is told to begin with it, not that there was none', () => {
    const log = checkValveLog(
      { story: 'in-order', seconds: 15, supply: 56_000, unitLoss: 0, valveLoss: 0, gauging: goodGauge, rate: 20 },
      dice(3),
    );
    const before = log.time.filter((t) => t < 3);
    const columns = Object.entries(log.columns).map(([channel, column]) => [channel, [...before.fill(0), ...column]]);
    const time = [...log.time.filter((t) => t < 3), ...log.time.map((t) => t + 3)];
    const late = makeTrace(
      Float64Array.from(time),
      Object.fromEntries(columns.map(([channel, cells]) => [channel, Float64Array.from(cells as number[])])),
    );
    expect(judge(late).characteristics).toEqual([
      expect.objectContaining({
        problem: { code: 'begins-without-vacuum', vacuum: 0, later: expect.closeTo(56e3, -3) },
      }),
    ]);
  });
});

describe.each([
  { step: 'pressure-hold', pressure: 6e6, seconds: 60, white: [1e3, 1.5e4], division: 1e3 },
  { step: 'low-pressure-hold', pressure: 4e5, seconds: 30, white: [100, 600], division: 100 },
] as const)('$step: holds that no rig made', ({ step, pressure, seconds, white, division }) => {
  const judge = bench('vacuum-remote', step);
  it.each<PressureStory>(['in-order', 'begins-in-hold', 'not-shut-off', 'too-low', 'cut-short', 'frozen', 'pumped-up'])(
    '%s',
    (story) => {
      const tally = emptyTally();
      const luck = dice(story.length * 17);
      // 2 % of the held pressure a minute.
      const limit = (0.02 * pressure * seconds) / 60;
      for (let n = 0; n < logs; n++) {
        const sound = luck.chance(0.5);
        const loss = limit * (sound ? luck.between(0, 0.5) : luck.between(1.5, 8));
        const trace = pressureHoldLog(
          {
            story,
            seconds,
            pressure,
            loss,
            gauging: {
              ...goodGauge,
              white: luck.between(white[0], white[1]),
              division,
              lag: luck.between(0, 0.1),
              wander: white[0] / 10,
            },
            rate: luck.oneOf([5, 20, 100]),
          },
          luck,
        );
        const shown = story === 'in-order' || story === 'begins-in-hold' || story === 'not-shut-off';
        const wrong = [...(sound && shown ? [] : (['pass'] as const)), ...(!sound && shown ? [] : (['fail'] as const))];
        count(
          tally,
          judge(trace),
          { wrong, shouldPass: sound && shown },
          `${story} ${(loss / limit).toFixed(2)} of the limit`,
        );
      }
      expectHonest(tally);
    },
  );
});
