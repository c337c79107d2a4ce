import type { FoundationUnit } from './geometry';
import { entryFromReadings } from '../../dials/from-readings';
import { onGauge } from '../../dials/asked';
import { expandedUncertainty, readingComponents, scaleComponents, type Estimate } from '../../instruments/uncertainty';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Question } from '../../procedure/question';
import type { Characteristic } from '../../procedure/step-analysis';
import { columnOf, meanOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { heldPressure, heldPushes, restOf, type HeldPush } from './held-pushes';
import { axleRatioWindow, rearWindow, soundAxleRatio } from './rear-window';
import { engineOn, firmFoot, pedal, pressAndHold, startEngine, type Context, type Measured } from './step-parts';

const axles = ['front_pressure', 'rear_pressure'] as const;
/** An axle with less than this at a firm push was never pressed, Pa. */
const leastPressed = 3e5;
/** A gauge that moves by less than this share of the other's is not known to be alive. */
const alive = 0.01;

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
    const pressures = axlesAt(found, context);
    const lower = pressures[0].value <= pressures[1].value ? 0 : 1;
    const [low, high] = [pressures[lower], pressures[1 - lower]];
    const told = high.value < context.workshopLimits.axleRatio * Math.max(low.value, 0);
    const still = low.value < alive * high.value;
    const unproved = told ? null : whatElse(found.lamp, still ? axles[lower] : null);
    return {
      characteristics: [unproved ? absent('axle-ratio', unproved) : ratioOf(low, high)],
      events: [],
      notes: notesOf(found.lamp, told),
      frontPressure: pressures[axles.indexOf('front_pressure')].value,
    };
  },
};

/** What a lamp says beside both axles: a lit one that they do not explain has another cause. */
function notesOf(lamp: boolean | null, told: boolean): readonly AnalysisProblem[] {
  if (!told) return [{ code: 'one-axle-alone', lamp: lamp === true }];
  return lamp === true ? [{ code: 'lamp-lit-for-another' }] : [];
}

/** One axle over the other; of one that its gauge cannot tell from nothing, at least so much. */
function ratioOf(low: Estimate, high: Estimate): Characteristic {
  const doubt = expandedUncertainty(low);
  if (low.value > doubt) {
    const ratio = high.value / low.value;
    return measured('axle-ratio', ratio, [
      ...scaleComponents(high.components, 1 / low.value),
      ...scaleComponents(low.components, ratio / low.value),
    ]);
  }
  const most = Math.max(low.value, 0) + Math.max(doubt, 1);
  const bound = { value: high.value / most, components: scaleComponents(high.components, 1 / most) };
  return beyond('axle-ratio', 'above', bound, { code: 'one-axle-alone', lamp: true });
}

/**
 * What else one axle alone may be: a gauge that stood still, dead or not coupled, while no lamp says that the shuttle has moved. Null where
 * the lamp is lit: two signs that know nothing of each other.
 */
function whatElse(lamp: boolean | null, stoodStill: (typeof axles)[number] | null): AnalysisProblem | null {
  if (lamp === true) return null;
  if (stoodStill) return { code: 'gauge-never-moved', channel: stoodStill };
  return lamp === null ? { code: 'lamp-not-recorded' } : { code: 'one-axle-alone', lamp };
}

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
    dials: entryFromReadings<FoundationUnit>({
      characteristics: () => ['axle-ratio'],
      once: ({ unit }, { front }) => {
        const [low, high] = front === undefined ? [0, 0] : rearWindow(unit, front);
        return [
          onGauge('front', 'front_pressure', 'Front, held'),
          onGauge('rear', 'rear_pressure', 'Rear, held', { expected: front === undefined ? null : { low, high } }),
          {
            id: 'red-lamp',
            title: 'Red lamp while held',
            as: 'state',
            by: 'eye',
            choices: ['out', 'lit', 'nobody looked'],
          },
        ];
      },
      reckon: ({ once }, context) => {
        const { front, rear, 'red-lamp': seen } = once;
        if (front === undefined || rear === undefined) return { code: 'not-read' };
        const highest = Math.max(front, rear);
        if (highest < leastPressed)
          return { code: 'too-little-pressure', channel: 'front_pressure', pressure: highest, needed: leastPressed };
        const lower = front <= rear ? 'front' : 'rear';
        const channel = `${lower}_pressure` as const;
        const instrument = context.instruments.get(channel);
        const parts = instrument ? readingComponents(instrument, once[lower], context.date) : [];
        const doubt = expandedUncertainty({ value: once[lower], components: parts });
        // Of what its gauge cannot tell from nothing, one is at least so many times the other.
        const none = once[lower] <= doubt;
        const least = Math.max(once[lower], 0) + Math.max(doubt, 1);
        const lamp = seen === 1 ? true : seen === 0 ? false : null;
        const told = highest < context.workshopLimits.axleRatio * Math.max(once[lower], 0);
        const unproved = told ? null : whatElse(lamp, once[lower] < alive * highest ? channel : null);
        if (unproved) return unproved;
        return {
          figures: ({ once: read }) => {
            const pair = lower === 'front' ? [read.front, read.rear] : [read.rear, read.front];
            return { 'axle-ratio': pair[1] / (none ? least : pair[0]) };
          },
          bounds: none ? { 'axle-ratio': { side: 'above', problem: { code: 'one-axle-alone', lamp: true } } } : {},
          also: { frontPressure: front, notes: notesOf(lamp, told) },
        };
      },
    }),
  },
  analyse: (trace, context) => answer(question, trace, context),
  limits: ({ frontPressure }, { unit, workshopLimits }) => [
    {
      characteristic: 'axle-ratio',
      low: null,
      high: workshopLimits.axleRatio,
      expected: frontPressure === undefined ? null : soundAxleRatio(unit, frontPressure),
      standard: 0,
      source: { kind: 'workshop', key: 'axleRatio' },
      ...(frontPressure === undefined ? {} : { window: axleRatioWindow(unit, frontPressure) }),
    },
  ],
  pictures: [{ kind: 'over-time', channels: ['front_pressure', 'rear_pressure', pedal] }],
};
