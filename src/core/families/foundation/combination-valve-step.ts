import { expandedUncertainty, scaleComponents } from '../../instruments/uncertainty';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Question } from '../../procedure/question';
import { columnOf, meanOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { heldPressure, heldPushes, restOf, type HeldPush } from './held-pushes';
import { engineOn, firmFoot, pedal, pressAndHold, startEngine, type Context, type Measured } from './step-parts';

const axles = ['front_pressure', 'rear_pressure'] as const;
/** One axle that has so many times the other's pressure is alone. */
const alone = 4;
/** An axle with less than this at a firm push was never pressed, Pa. */
const leastPressed = 3e5;

interface Pushed {
  readonly trace: Trace;
  readonly push: HeldPush;
  /** Whether the red lamp was lit while it was held; null where nobody recorded it. */
  readonly lamp: boolean | null;
}

function findPushed(trace: Trace): Pushed | NoEvidence {
  for (const channel of [pedal, ...axles])
    if (!columnOf(trace, channel)) return noEvidence({ code: 'channel-missing', channel });
  const push = heldPushes(trace, pedal).at(-1);
  if (!push) return noEvidence({ code: 'no-hold', channel: pedal, seconds: 0.5 });
  const column = columnOf(trace, 'lamp_red');
  return { trace, push, lamp: column ? meanOf(column, push.from, push.to).mean > 0.5 : null };
}

function axlesAt({ trace, push }: Pushed, context: Context) {
  return axles.map((axle) => heldPressure(trace, axle, push, restOf(trace, axle, push), context));
}

function pushEvidence(found: Pushed, context: Context): Judged<Pushed> {
  const highest = Math.max(...axlesAt(found, context).map(({ value }) => value));
  if (highest < leastPressed)
    return noEvidence({
      code: 'too-little-pressure',
      channel: 'front_pressure',
      pressure: highest,
      needed: leastPressed,
    });
  return evidence(found, found.lamp === null ? [{ code: 'lamp-not-recorded' }] : []);
}

const question: Question<Context, Pushed, Pushed> = {
  characteristics: ['axle-ratio'],
  happened: findPushed,
  shows: pushEvidence,
  comesTo: (found, context) => {
    const [low, high] = axlesAt(found, context).toSorted((a, b) => a.value - b.value);
    // An axle with nothing at all has at least so little that its gauge cannot tell it from nothing.
    const least = Math.max(low.value, expandedUncertainty(low), 1);
    const ratio = high.value / least;
    const said: readonly AnalysisProblem[] =
      ratio >= alone ? [{ code: 'one-axle-alone', lamp: found.lamp === true }] : [];
    return {
      characteristics: [
        measured('axle-ratio', ratio, [
          ...scaleComponents(high.components, 1 / least),
          ...scaleComponents(low.components, ratio / least),
        ]),
      ],
      events: [],
      notes: said,
    };
  },
};

export const combinationValve: Measured = {
  id: 'combination-valve',
  kind: 'measured',
  title: 'Both axles at one push',
  why: 'After a loss on one side, or a clumsy bleeding, the shuttle of the combination valve may stand to one side: one axle dead, the pedal rock hard, the lamp on.',
  minutes: 3,
  cautions: ['running-engine', 'vehicle-still', 'fluid-jet', 'shuttle-by-the-maker'],
  optional: false,
  characteristics: ['axle-ratio'],
  feeds: {
    log: { needs: [pedal, ...axles], uses: ['lamp_red', 'engine_on'], leastRows: 20 },
    live: {
      startsFrom: 'charged',
      guide: () => [startEngine(4), ...pressAndHold(firmFoot, 2, engineOn)],
      bands: () => ({}),
    },
  },
  analyse: (trace, context) => answer(question, trace, context),
  limits: () => [
    {
      characteristic: 'axle-ratio',
      low: null,
      high: alone,
      expected: null,
      standard: 0,
      source: { kind: 'workshop', key: 'axleRatio' },
    },
  ],
  pictures: [{ kind: 'over-time', channels: ['front_pressure', 'rear_pressure', pedal] }],
};
