/* Sound units, well measured, as ordinary loggers write them: none of them may be refused for its manner. */

import { evaluateStep } from '../judging/evaluate-unit';
import { byOrdinaryLogger, manners, type Manner } from '../../../tests/support/second-writer/ordinary-loggers';
import { dice } from '../../../tests/support/second-writer/logger';
import { benchOf, cases } from '../../../tests/support/second-writer/steps-suite';
import { sized } from '../../../tests/support/study-size';

const logsOfEach = sized(1, 12);

interface Counted {
  logs: number;
  /** Figures that were there as the log came, and are not with a manner of writing it. */
  readonly refused: string[];
  /** Passed as the log came, and cannot be decided, or fails, with a manner. */
  readonly undecided: string[];
  readonly failed: string[];
}

const counted = new Map<Manner, Counted>(
  manners.map((manner) => [manner, { logs: 0, refused: [], undecided: [], failed: [] }]),
);

describe('sound units by ordinary loggers', () => {
  it.each(cases.map((each) => [`${each.family} ${each.step}`, each] as const))('%s', (name, each) => {
    const { kind, step, context } = benchOf(each);
    for (const story of each.whole)
      for (let n = 0; n < logsOfEach; n++) {
        const luck = dice(77 + n * 7919 + name.length * 31 + story.length * 1009);
        const { log: came } = each.write(story, true, luck);
        const judge = (log: typeof came) =>
          evaluateStep(kind, step, [{ analysed: () => step.analyse(log, context) }], { context, policy: 'guarded' });
        const before = judge(came);
        if (before.verdict !== 'pass') continue;
        for (const manner of manners) {
          // What a step says it must be read more often than this is not this step's log.
          if (manner === 'asked ten times a second' && (step.feeds.log.leastRate ?? 0) > 10) continue;
          const after = judge(byOrdinaryLogger(came, manner, (channel) => context.instruments.get(channel)?.range));
          const here = counted.get(manner)!;
          here.logs++;
          const lost = after.characteristics.filter(
            ({ id, kind: found }) =>
              found === 'absent' && before.characteristics.find((one) => one.id === id)?.kind !== 'absent',
          );
          if (lost.length > 0)
            here.refused.push(
              `${name} ${story}: ${lost.map((one) => `${one.id} ${one.kind === 'absent' ? one.problem.code : ''}`).join(', ')}`,
            );
          else if (after.verdict === 'fail') here.failed.push(`${name} ${story}`);
          else if (after.verdict !== 'pass')
            here.undecided.push(
              `${name} ${story}: ${after.checks.flatMap((check) => (check.verdict.kind === 'pass' ? [] : [check.characteristic])).join(', ')}`,
            );
        }
      }
  });

  it.each(manners)('%s: hardly one in a hundred is refused, and none fails', (manner) => {
    const { logs, refused, undecided, failed } = counted.get(manner)!;
    process.stdout.write(
      `${manner}: ${logs} logs, refused ${refused.length}, undecided ${undecided.length}, failed ${failed.length}\n${[...refused, ...undecided.map((told) => `(undecided) ${told}`)].map((told) => `    ${told}\n`).join('')}`,
    );
    expect(logs).toBeGreaterThan(15);
    expect(failed).toEqual([]);
    expect(refused.length / logs).toBeLessThanOrEqual(0.01);
  });
});
