import { slip } from './chances';
import { compared } from './compared-figures';
import { anywhereDensity, heldAgainst } from './figure-density';
import { findingAt, type LaidOut } from './laid-out';
import type { StateLikelihood } from './likelihood';
import { integrateNuisances, type Compared } from './nuisance';
import { pointChance, symptomChance } from './said-and-seen';
import type { State } from './states';
import { addBounds, addFailed, addLost, anyOutcome } from './unmeasured-figures';

const { exp, log, max } = Math;

/**
 * Log likelihood of a unit with something that no fault of the list explains: some of its steps are as in a sound unit, the others may
 * show anything. What moves figures need not do so as sound units differ: with and without that, whichever explains more.
 */
export function unlistedLikelihood(laid: LaidOut, sound: State): StateLikelihood {
  const together = touchedLikelihood(laid, sound, loosened(compared(laid, sound)));
  const asunder = touchedLikelihood(laid, sound, apart(compared(laid, sound)));
  return together.total > asunder.total ? together : asunder;
}

/** Share of figures that may be anything while what sound units differ in is fitted to the others. */
const looseShare = 0.2;

/** The same with so many slips allowed that no figure drags the others along. */
function loosened({ slipped, otherwise, chance, ...rest }: Compared): Compared {
  return {
    ...rest,
    slipped: slipped.map((each) => (each * looseShare) / slip),
    otherwise: otherwise.map((each) => each * (1 - looseShare)),
    chance: chance.map((each) => each * (1 - looseShare)),
  };
}

/** The same with every figure for itself. */
function apart({ columns, variance, ...rest }: Compared): Compared {
  const wider = variance.map((each, at) => columns.reduce((sum, column) => sum + column[at] ** 2, each));
  return { ...rest, variance: wider, columns: [] };
}

function touchedLikelihood(laid: LaidOut, sound: State, how: Compared): StateLikelihood {
  const hypothesis = { kind: 'not-in-this-list' } as const;
  const { each, cost } = integrateNuisances(how);
  const size = laid.findings.length;
  const [asSound, asAnything] = [new Float64Array(size), new Float64Array(size)];
  laid.measured.forEach((one, at) => {
    const { figure, seen } = one;
    if (seen.kind === 'absent') return;
    const finding = findingAt(laid, figure);
    asSound[finding] += each[at];
    const signature = laid.table.figures[figure];
    const place = heldAgainst(one, seen.at, signature.sound.at);
    asAnything[finding] += log(0.5 * exp(each[at]) + 0.5 * anywhereDensity(place, signature));
  });
  addBounds(laid, sound.cells, asSound);
  addLost(laid, sound.cells, asSound);
  addFailed(laid, sound, asSound);
  for (const { figure } of laid.bounded) asAnything[findingAt(laid, figure)] += log(anyOutcome);
  for (const finding of new Set(laid.lost.map(({ figure }) => findingAt(laid, figure))))
    asAnything[finding] += log(anyOutcome);
  const steps = [...laid.findingOfStep.values()];
  const touched = (share: number, at: number) => log((1 - share) * exp(asSound[at]) + share * exp(asAnything[at]));
  // How many of the steps it touches nobody knows: the shares are tried, and what they come to is averaged.
  const totals = touchedShares.map((share) => steps.reduce((sum, at) => sum + touched(share, at), 0));
  const best = touchedShares[totals.indexOf(max(...totals))];
  const byFinding = new Float64Array(size);
  for (const at of steps) byFinding[at] = touched(best, at);
  for (const { finding, point } of laid.points) byFinding[finding] = log(pointChance(laid.kind, hypothesis, point));
  for (const { finding, symptom, said } of laid.symptoms)
    byFinding[finding] = log(symptomChance(laid, hypothesis, symptom, said));
  const rest = [...laid.points, ...laid.symptoms].reduce((sum, { finding }) => sum + byFinding[finding], 0);
  const peak = max(...totals);
  const steady = peak + log(totals.reduce((sum, one) => sum + exp(one - peak), 0) / totals.length);
  return { byFinding, total: steady + rest + cost };
}

/** Shares of its steps that something unlisted may touch. */
const touchedShares = [0.1, 0.3, 0.6] as const;
