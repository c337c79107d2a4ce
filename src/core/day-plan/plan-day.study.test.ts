import { brokenRules } from '../../../tests/support/day-rules';
import { better, exhaustiveBest, worthOf } from '../../../tests/support/exhaustive-day';
import { nothingBegun, randomDay, rolls } from '../../../tests/support/random-day';
import { sized } from '../../../tests/support/study-size';
import { firstComeFirstServed, planDay } from './plan-day';

it('500 random days: never later than first come, first served, and no rule broken', () => {
  const wrong: unknown[] = [];
  let [late, lateByTurn] = [0, 0];
  for (let seed = 1; seed <= sized(40, 500); seed++) {
    const roll = rolls(seed);
    const size = { jobs: 2 + roll(20), people: 1 + roll(4), benches: 1 + roll(4), mostTasks: 5 };
    const day = randomDay(seed, size);
    const [plan, first] = [planDay(day), firstComeFirstServed(day)];
    const broken = brokenRules(day, plan);
    if (broken.length > 0 || better(worthOf(day, first), worthOf(day, plan))) wrong.push({ seed, broken });
    late += plan.late;
    lateByTurn += first.late;
  }
  console.log(`minutes late: ${late.toFixed(0)}; first come, first served: ${lateByTurn.toFixed(0)}`);
  expect(wrong).toEqual([]);
});

it('200 small days: within a tenth of the best that trying everything finds', () => {
  const off: unknown[] = [];
  let best = 0;
  for (let seed = 1001; seed <= 1000 + sized(60, 200); seed++) {
    const roll = rolls(seed);
    const size = { jobs: 2 + roll(sized(2, 3)), people: 1 + roll(2), benches: 1 + roll(2), mostTasks: 3 };
    const day = nothingBegun(randomDay(seed, size));
    const own = worthOf(day, planDay(day));
    const found = exhaustiveBest(day, worthOf(day, firstComeFirstServed(day)));
    if (found.late === own.late && found.finish === own.finish) best++;
    else if (own.late > 1.1 * found.late || (own.late === found.late && own.finish > 1.1 * found.finish))
      off.push({ seed, own, found });
  }
  console.log(`the very best: ${best} of ${sized(60, 200)}`);
  expect(off).toEqual([]);
});
