import type { FoundationProblem } from '../vocabulary/foundation-problem';
import { withUnit, type DisplayUnits } from './display';

/** What a trace of what sits behind the unit could not tell, or what was noticed, and what to do about it. */
export function foundationProblemText(problem: FoundationProblem, units: DisplayUnits): string {
  switch (problem.code) {
    case 'nothing-assisted':
      return 'Both pushes made about the same pressure: nothing helped the foot at either of them.';
    case 'behind-from-the-start':
      return `The rear falls behind from the start (slope ${problem.slope.toFixed(2)}): where it should begin to cannot be told.`;
    case 'neither-line':
      return `Rear over front is neither one straight line nor two (up to ${withUnit(problem.off, 'gauge', units)} off): pressed too quickly, written too seldom, or the rear comes late. Press more slowly; if it stays so, look at the hoses.`;
    case 'lamp-lit-for-another':
      return 'The red lamp is lit although both axles are pressed: something else lights it. The step “What changes the red lamp” finds what.';
    case 'engine-not-stopped':
      return 'The engine ran at every push: one without it is the half of the pair that the foot makes alone.';
    case 'engine-not-recorded':
      return 'Nobody recorded with which push the engine ran: two pushes alike show as little assist as a unit that gives none. Log the engine, or push once without it and once with it.';
    case 'no-split':
      return `Up to ${withUnit(problem.reached, 'gauge', units)} at the front the rear never falls behind: no split, or it lies higher.`;
    case 'lamp-not-recorded':
      return 'Nobody recorded the red lamp: with one axle alone it lights.';
    case 'one-axle-alone':
      return problem.lamp
        ? 'One axle stands alone and the lamp is lit: the shuttle of the combination valve stands to one side.'
        : 'One axle stands alone, and no lamp is lit: a shuttle that stands to one side lights it, unless its switch or wire is dead.';
    case 'calculation-only':
      return `A calculation out of the sheet, and no approval. ${problem.source}.`;
    case 'road-limits':
      return `The brakes could give more; a dry road gives no more than ${withUnit(problem.deceleration, 'deceleration', units)}.`;
    case 'never-stops':
      return 'With this foot it would not stop at all.';
    case 'worked-by-the-other':
      return 'By its sheet this switch is worked otherwise: that figure counts.';
  }
}
