import { failed, fellShort, found, good, type InquirySteps } from '../../../contract/inquiry-says';
import type { Conclusion } from '../../../contract/plan';

/** Steps that clear the booster when all of them are good. */
const boosterSteps = ['source-vacuum', 'check-valve', 'pedal-drop', 'reserve', 'reserve-soak', 'same-force-pair'];
const boosterCleared = (steps: InquirySteps) => boosterSteps.every((id) => good(steps, id));

const behind = (id: string, point: string, title: string, advice: string, fault: string): Conclusion => ({
  id,
  title,
  advice,
  faults: [fault],
  step: 'behind-the-booster',
  holds: (steps) => found(steps, 'behind-the-booster', point, 'found'),
});

/**
 * Where a hard-pedal inquiry ends, most certain first: the source before the hose, the hose before the check valve,
 * the check valve before the unit, and what is behind the booster only once the booster has been cleared.
 */
export const hardPedalConclusions: readonly Conclusion[] = [
  behind(
    'combination-valve',
    'combination-valve',
    'The combination valve stands to one side',
    'Find the side that lost pressure first, then centre the shuttle the maker’s way and bleed.',
    'combination-valve-shuttled',
  ),
  behind(
    'seized-wheel',
    'seized-wheel',
    'A wheel cylinder or caliper is seized',
    'Free or renew it, and look at the others of the same age.',
    'wheel-cylinder-seized',
  ),
  behind(
    'brake-hose',
    'brake-hoses',
    'A brake hose is swollen',
    'Renew the hoses of that axle together.',
    'hose-swollen',
  ),
  behind('linings', 'linings', 'The linings are glazed', 'Renew or dress them the maker’s way.', 'linings-glazed'),
  {
    id: 'source',
    title: 'The source is too weak',
    advice: 'The unit gets too little vacuum at idle. Look at the engine or the pump before anything else.',
    faults: ['low-source-vacuum'],
    holds: (steps) => idleFailed(steps) && !hoseTakes(steps),
  },
  {
    id: 'hose',
    title: 'The vacuum hose closes under flow',
    advice: 'Good at idle, down while held: fit a proper vacuum hose and measure again.',
    faults: ['hose-collapsing', 'check-valve-blocked'],
    holds: (steps) =>
      hoseTakes(steps) ||
      (!idleFailed(steps) && (failed(steps, 'source-vacuum') || found(steps, 'hose-look', 'vacuum-hose', 'unfit'))),
  },
  {
    id: 'check-valve',
    title: 'The check valve leaks back',
    advice: 'Renew the check valve and its grommet, then soak again: a second leak may hide behind it.',
    faults: ['check-valve-leak'],
    holds: (steps) => good(steps, 'source-vacuum') && failed(steps, 'check-valve'),
  },
  {
    id: 'leaking-unit',
    title: 'The unit itself leaks at rest',
    advice:
      'Source and hose are good, nothing comes back through the valve, and the vacuum does not last: to the bench.',
    faults: ['atmosphere-valve-leak'],
    holds: (steps) => good(steps, 'source-vacuum') && !failed(steps, 'check-valve') && failed(steps, 'reserve-soak'),
  },
  {
    id: 'unit',
    title: 'The unit does not assist as it should',
    advice: 'The vacuum is there and does not become force: the unit goes on the bench.',
    faults: ['diaphragm-leak', 'vacuum-valve-leak'],
    holds: (steps) =>
      good(steps, 'source-vacuum') &&
      (fellShort(steps, 'pedal-drop', 'pedal-sink') ||
        failed(steps, 'reserve') ||
        fellShort(steps, 'same-force-pair', 'vehicle-ratio')),
  },
  {
    id: 'not-the-booster',
    clears: true,
    handsTo: 'foundation',
    title: 'It is not the booster',
    advice: 'Vacuum, valve, reserve and boost are good. Look behind it: combination valve, wheels, hoses, linings.',
    faults: ['combination-valve-shuttled', 'wheel-cylinder-seized', 'hose-swollen', 'linings-glazed'],
    holds: boosterCleared,
  },
];

function idleFailed(steps: InquirySteps): boolean {
  return fellShort(steps, 'source-vacuum', 'idle-vacuum');
}

/** One gauge read more at the engine than at the unit: what is short there is the hose's doing. */
function hoseTakes(steps: InquirySteps): boolean {
  return steps.get('source-vacuum')?.hoseTakes === true;
}
