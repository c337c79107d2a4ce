import { random } from '../../instruments/uncertainty';
import { absent } from '../../procedure/analysis-result';
import { evidence, noEvidence } from '../../procedure/evidence';
import { atMost } from '../../procedure/limit';
import { answer, joinAnswers, type Question } from '../../procedure/question';
import { sameSamples, type Samples } from '../../traces/own-samples';
import type { Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { LampChannel } from '../../vocabulary/drive-problem';
import { samplesOf } from './drive';
import { clockUnder, onClock } from './drive-clock';
import { longestDisagreement, timeOn } from './drive-states';
import { lampChannels, meaningsOf } from './lamp-meanings';
import { asMeasured, type Context } from './read-log';
import { driveStep } from './step-parts';

const switchChannels = ['stop_switch', 'stop_switch_2'] as const;
/** What was lit together for less than this is how lamps come on one after the other, s. */
const together = 0.5;

interface Lamps {
  readonly notes: readonly AnalysisProblem[];
}

/** Every set of lamps that were lit together, with for how long, s. */
function litTogether(
  trace: Trace,
  lamps: readonly LampChannel[],
): readonly (readonly [readonly LampChannel[], number])[] {
  const samples = lamps.map((lamp) => samplesOf(trace, lamp)!);
  const clock = clockUnder(samples);
  const states = samples.map((each) => onClock(each, clock, 'held'));
  // A bit a lamp: which of them were lit at every step, and how many steps each set of them lasted.
  const sets = new Uint8Array(clock.count);
  states.forEach(({ value, known }, at) => {
    for (let i = 0; i < clock.count; i++) if (known[i] === 1 && value[i] > 0.5) sets[i] |= 1 << at;
  });
  const steps = new Uint32Array(1 << lamps.length);
  for (let i = 0; i < clock.count; i++) steps[sets[i]]++;
  return Array.from(
    steps,
    (count, set) => [lamps.filter((_, at) => (set & (1 << at)) !== 0), count * clock.step] as const,
  )
    .filter(([lit, lasted]) => lit.length > 0 && lasted >= together)
    .toSorted((a, b) => b[1] - a[1]);
}

function lampNotes(trace: Trace): AnalysisProblem[] | null {
  const there = lampChannels.filter((lamp) => samplesOf(trace, lamp));
  if (there.length === 0) return null;
  const lit = there.flatMap((channel): AnalysisProblem[] => {
    const { on, known } = timeOn(samplesOf(trace, channel)!);
    return on > 0 ? [{ code: 'lamp-lit', channel, seconds: on, of: known }] : [];
  });
  if (lit.length === 0) return [{ code: 'no-lamp-lit' }];
  return [
    ...lit,
    ...litTogether(trace, there).map(([lamps, seconds]): AnalysisProblem => ({
      code: 'lamps-mean',
      lamps,
      seconds,
      meanings: meaningsOf(lamps),
    })),
  ];
}

/** What the lamps say: nothing is held against it, it is said. */
const lamps: Question<Context, Lamps, Lamps> = {
  characteristics: [],
  happened: (trace) => ({ notes: lampNotes(trace) ?? [] }),
  shows: (found) => evidence(found, found.notes),
  comesTo: () => ({ characteristics: [], events: [], notes: [] }),
};

interface Switches {
  readonly one: Samples;
  readonly other: Samples;
}

const pressed = ({ value }: Samples) => value.some((each) => each > 0.5);

const switches: Question<Context, Switches, Switches> = {
  characteristics: ['switch-difference'],
  happened: (trace) => {
    const [one, other] = switchChannels.map((channel) => samplesOf(trace, channel));
    if (!one || !other) return noEvidence({ code: 'channel-missing', channel: switchChannels[one ? 1 : 0] });
    return { one, other };
  },
  shows: (found) => {
    if (!pressed(found.one) && !pressed(found.other)) return noEvidence({ code: 'switch-never-pressed' });
    return evidence(found, sameSamples(found.one, found.other) ? [{ code: 'switches-alike' }] : []);
  },
  comesTo: ({ one, other }) => {
    const { seconds, standard, at } = longestDisagreement(one, other);
    return {
      characteristics: [
        Number.isFinite(seconds)
          ? asMeasured('switch-difference', { value: seconds, components: [random('timing', standard)] })
          : absent('switch-difference', { code: 'not-read' }),
      ],
      events: at === null ? [] : [{ id: 'switches-apart', time: at }],
      notes: [],
    };
  },
};

export const lampStates = driveStep({
  id: 'lamp-states',
  title: 'Lamps and switches',
  why: 'Which lamps were lit, how long, and what that can mean; and whether the two stop-lamp switches, of which one must do, agree.',
  minutes: 2,
  characteristics: ['switch-difference'],
  needs: [],
  anyOf: [switchChannels, ...lampChannels.map((lamp) => [lamp])],
  uses: [...switchChannels, ...lampChannels],
  analyse: (trace, context) => joinAnswers([answer(switches, trace, context), answer(lamps, trace, context)]),
  limits: (_analysis, { unit }) => [
    atMost(
      'switch-difference',
      { value: unit.switchDifferenceMost, source: { kind: 'sheet', field: 'switchDifferenceMaxS' } },
      { expected: 0 },
    ),
  ],
});
