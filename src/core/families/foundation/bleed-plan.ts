import type { FoundationUnit } from './geometry';

const fluids = { glycol: 'glycol fluid (DOT 3, 4 or 5.1)', silicone: 'silicone fluid (DOT 5)', mineral: 'mineral oil' };

/** Fluid that is thrown away first, out of the reservoir and master cylinder; and what each wheel takes, cm3. */
const thrownAway = 150;
const perWheel = 120;

/** Wheels in the order in which they are bled. */
export function bleedOrder({ spec }: Pick<FoundationUnit, 'spec'>): readonly string[] {
  return spec.bleedOrder === 'farthest-first'
    ? ['rear right', 'rear left', 'front right', 'front left']
    : ['rear circuit: right, left', 'front circuit: right, left'];
}

/** How a vehicle of a sheet is bled, line by line. */
export function bleedPlan(unit: FoundationUnit): readonly string[] {
  const { spec } = unit;
  const order = bleedOrder(unit);
  const litres = (thrownAway + 4 * perWheel) / 1000;
  return [
    `Fluid: ${fluids[spec.fluid]}, new and sealed, about ${litres.toFixed(1)} L. Another kind is not filled, whatever is in it now: stop here.`,
    `First about ${thrownAway} cm3 out of the reservoir and the master cylinder, thrown away: its grit must not reach what is new.`,
    'Adjust the drums before, or their slack is taken for air.',
    `${spec.bleedOrder === 'farthest-first' ? 'Farthest wheel first' : 'By circuit, as the maker says'}: ${order.join(', ')}; about ${perWheel} cm3 each, until it runs clear and without bubbles.`,
    'Then the remote unit’s own screw where it has one (some say that it hardly matters), and the master cylinder last.',
  ];
}
