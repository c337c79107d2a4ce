import type { AnyKind } from '../contract/kind';
import { chanceOf, chanceOfSaying, lookFindsUnlisted, saidOfSound, saidOfUnlisted } from './chances';
import type { SeenPoint } from './evidence';
import { faultsOf, type Hypothesis } from './hypothesis';
import type { LaidOut } from './laid-out';
import { lookChance } from './look-chance';

const { max } = Math;

/** Chance of what was seen at a point of a look. */
export function pointChance(kind: AnyKind, hypothesis: Hypothesis, { point, option, options }: SeenPoint): number {
  const looks = faultsOf(hypothesis).flatMap(
    (id) => kind.model.faults.find((fault) => fault.id === id)?.appearance[point] ?? [],
  );
  const shown = looks.includes(option) ? option : looks[0];
  return lookChance(options, option, shown, hypothesis.kind === 'not-in-this-list' ? lookFindsUnlisted : undefined);
}

/** Chance that a driver said, or did not say, one thing of the list; of a unit that is sound by now, because of what was mended. */
export function symptomChance({ kind, mended }: LaidOut, hypothesis: Hypothesis, id: string, said: boolean): number {
  const symptom = kind.symptoms.find((each) => each.id === id);
  const brought = (faults: readonly string[]) => faults.map((fault) => chanceOf[symptom?.of[fault] ?? 'rarely']);
  // What sound units are said to do too, any unit is.
  const ordinary = symptom?.ofSound === undefined ? 0 : chanceOf[symptom.ofSound];
  const noticed = max(ordinary, noticedOf());
  return said ? noticed : 1 - chanceOfSaying * noticed;
  function noticedOf(): number {
    switch (hypothesis.kind) {
      case 'no-fault':
        return max(saidOfSound, ...brought(mended));
      case 'not-in-this-list':
        return saidOfUnlisted;
      default:
        return max(...brought(faultsOf(hypothesis)));
    }
  }
}
