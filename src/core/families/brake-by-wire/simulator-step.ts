import { lineThrough } from '../../fitting/point-lines';
import { pointDoubt, tooFarOn, twoLinesOf } from '../../dials/rows-curve';
import { entryFromReadings } from '../../dials/from-readings';
import { onGauge } from '../../dials/asked';
import { fitLine } from '../../fitting/line';
import { binByX, fitSegments } from '../../fitting/segments';
import { differenceComponents, random, systematic, type UncertaintyComponent } from '../../instruments/uncertainty';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import type { ReadingBands } from '../../procedure/expected';
import { around } from '../../procedure/limit';
import { plainCurve } from '../../procedure/picture';
import { answer, type Question } from '../../procedure/question';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { CharacteristicId } from '../../quantities/characteristics';
import { findPull, isPull } from '../../traces/pull';
import { together } from '../../traces/together';
import { columnOf, meanOf, type Trace } from '../../traces/trace';
import { forceForShare, simulatorForce, type ByWireUnit } from './geometry';
import { keyOn, lever, provedSafe, restAwake, wake, type Context, type Measured } from './step-parts';

const { hypot, max, sqrt } = Math;

const ids = ['stage-1-stiffness', 'stage-2-stiffness', 'stage-change-travel'] as const satisfies CharacteristicId[];

/** Read from this travel on, m; a press of less than this says nothing. */
const readFrom = 1e-3;
const leastTravel = 3e-3;
const bins = 80;
/** A second stage is one that is so many times as steep, over at least so many bins. */
const steeper = 1.15;
const fewestBins = 4;
const fewestPoints = 12;

/** Pedal force (N) over pedal travel (m) while it was pressed, both from rest. */
interface Press {
  readonly travel: Float64Array;
  readonly force: Float64Array;
  readonly reached: number;
  readonly peak: number;
  readonly powered: boolean | null;
}

function findPress(trace: Trace): Press | NoEvidence {
  for (const channel of [lever, 'pedal_travel'])
    if (!columnOf(trace, channel)) return noEvidence({ code: 'channel-missing', channel });
  const rows = together(trace, [lever, 'pedal_travel']);
  const pull = findPull(rows, rows.columns[lever]);
  if (!isPull(pull)) return noEvidence({ code: 'no-pull', channel: lever });
  const key = columnOf(rows, 'ignition_on');
  const { restBefore, plateau } = pull;
  const zero =
    restBefore.to > restBefore.from ? meanOf(rows.columns.pedal_travel, restBefore.from, restBefore.to).mean : 0;
  const travel = rows.columns.pedal_travel.subarray(restBefore.to, plateau.to).map((value) => value - zero);
  const force = rows.columns[lever].subarray(restBefore.to, plateau.to).map((value) => value - (pull.zero ?? 0));
  return {
    travel,
    force,
    reached: travel.reduce((most, value) => max(most, value), 0),
    peak: pull.peak - (pull.zero ?? 0),
    powered: onIn(key, restBefore.to, plateau.to),
  };
}

/** Whether a 0/1 column was on over some samples; null where nothing of it was recorded there. */
function onIn(column: Float64Array | undefined, from: number, to: number): boolean | null {
  if (!column) return null;
  const { mean, count } = meanOf(column, from, to);
  return count > 0 ? mean > 0.5 : null;
}

function pressEvidence(found: Press): Judged<Press> {
  // Without power another valve is open: the pedal then works on the wheels, not on the simulator.
  if (found.powered === false) return noEvidence({ code: 'not-awake' });
  if (found.reached < leastTravel)
    return noEvidence({ code: 'stroke-too-short', reached: found.reached, needed: leastTravel });
  const points = found.travel.filter((value) => value >= readFrom).length;
  if (points < fewestPoints)
    return noEvidence({ code: 'too-few-samples', channel: 'pedal_travel', samples: points, needed: fewestPoints });
  // A spring of two stages is itself what shows that it was the simulator: without power the pedal pumps fluid.
  return evidence(found, found.powered === null ? [{ code: 'power-not-seen' }] : []);
}

function stagesOf({ travel, force, reached, peak }: Evidence<Press>, context: Context): StepAnalysis {
  const data = binByX(travel, force, bins, { keep: (i) => travel[i] >= readFrom });
  const parts = gaugeShare(reached, peak, context);
  const stiffness = (id: CharacteristicId, value: number, variance: number) =>
    measured(id, value, [random('fit', sqrt(max(0, variance))), systematic('gauge-gain', value * parts)]);
  const two = fitSegments(data, 2);
  const line = fitLine(data.x, data.y, { weights: data.weight });
  const joint = two.breaks[0] ?? Number.NaN;
  const beyondJoint = data.x.filter((x) => x > joint).length;
  const found =
    two.termination === 'converged' &&
    two.slopes[0] > 0 &&
    two.slopes[1] > steeper * two.slopes[0] &&
    beyondJoint >= fewestBins &&
    data.x.length - beyondJoint >= fewestBins &&
    two.slopes[1] - two.slopes[0] > 4 * sqrt(max(0, two.covariance[2][2]));
  if (found) {
    const ofSecond = two.covariance[1][1] + two.covariance[2][2] + 2 * two.covariance[1][2];
    return {
      characteristics: [
        stiffness('stage-1-stiffness', two.slopes[0], two.covariance[1][1]),
        stiffness('stage-2-stiffness', two.slopes[1], ofSecond),
        measured('stage-change-travel', joint, [
          random('fit', sqrt(max(0, two.covariance[3][3]))),
          ...travelParts(joint, context),
        ]),
      ],
      events: [{ id: 'knee', time: null, x: joint, y: two.intercept + two.slopes[0] * joint }],
      notes: [],
    };
  }
  const missing = stageMissing(reached, context);
  return {
    characteristics: [
      line.termination === 'converged'
        ? stiffness('stage-1-stiffness', line.slope, line.slopeVariance)
        : absent('stage-1-stiffness', { code: 'fit-failed', termination: line.termination }),
      absent('stage-2-stiffness', missing),
      missing.code === 'stage-not-reached'
        ? absent('stage-change-travel', missing)
        : beyond(
            'stage-change-travel',
            'above',
            { value: reached, components: travelParts(reached, context) },
            missing,
          ),
    ],
    events: [],
    notes: [],
  };
}

/** Why no second stage was found in a press that reached so far, m: it was not reached, or there is none. */
function stageMissing(reached: number, { unit: { simulator, spec } }: Context) {
  const by = simulator.changeTravel * (1 + spec.simulatorTolerancePercent / 100) - reached;
  return by > 0
    ? ({ code: 'stage-not-reached', by, reached } as const)
    : ({ code: 'no-second-stage', reached } as const);
}

function travelParts(travel: number, context: Context): readonly UncertaintyComponent[] {
  const gauge = context.instruments.get('pedal_travel');
  return gauge ? differenceComponents(gauge, 0, travel, context.date) : [];
}

/** What both gauges may be off by, as a share of a stiffness. */
function gaugeShare(reached: number, peak: number, context: Context): number {
  const cell = context.instruments.get(lever);
  const force = cell ? differenceComponents(cell, 0, peak, context.date) : [];
  return hypot(
    hypot(...travelParts(reached, context).map((part) => part.standard)) / reached,
    hypot(...force.map((part) => part.standard)) / peak,
  );
}

const question: Question<Context, Press, Press> = {
  characteristics: ids,
  happened: findPress,
  shows: pressEvidence,
  comesTo: stagesOf,
};

const tolerance = (unit: ByWireUnit) => unit.spec.simulatorTolerancePercent / 100;
const pressTo = ({ unit }: Context) => forceForShare(unit, 1);

export const simulatorCurve: Measured = {
  id: 'simulator-curve',
  kind: 'measured',
  title: 'Feel of the pedal',
  why: 'Awake, the pedal works a spring and nothing else: soft, then stiff. Anything else is a valve, or a broken spring.',
  minutes: 3,
  cautions: ['wakes-by-itself', 'fluid-jet'],
  optional: false,
  characteristics: ids,
  ...provedSafe,
  feeds: {
    log: { needs: [lever, 'pedal_travel'], uses: ['ignition_on'], leastRows: 40 },
    live: {
      startsFrom: 'charged',
      guide: (context) => {
        const level = pressTo(context);
        return [
          wake(3),
          {
            instruction: { code: 'pull-slowly-past', channel: lever, level },
            controls: keyOn,
            lever: { to: level * 1.02, seconds: 12 },
            end: { kind: 'input-above', level },
          },
          {
            instruction: { code: 'let-back-slowly', channel: lever },
            controls: keyOn,
            lever: { to: 0, seconds: 6 },
            end: { kind: 'input-below', level: 8 },
          },
          restAwake(1.5),
        ];
      },
      bands: (context, readings): ReadingBands => {
        const travel = readings.pedal_travel;
        if (travel === undefined) return {};
        const { unit } = context;
        const force = simulatorForce(unit.simulator, max(0, travel));
        return { [lever]: [force * (1 - tolerance(unit)) - 5, force * (1 + tolerance(unit)) + 5] };
      },
    },
    dials: entryFromReadings<ByWireUnit>({
      characteristics: () => ids,
      rows: () => ({
        least: 4,
        columns: [
          onGauge('travel', 'pedal_travel', 'Travel', { by: 'rule', hint: 'From rest' }),
          onGauge('force', lever, 'Force'),
        ],
      }),
      reckon: ({ rows }, context) => {
        // Below that, play and friction speak.
        const inUse = rows.map(({ travel }) => travel >= readFrom);
        const pointsOf = (read: typeof rows) =>
          read.flatMap(({ travel, force }, at) => (inUse[at] ? [{ x: travel, y: force }] : []));
        const points = pointsOf(rows);
        if (points.length < 4) return { code: 'rows-still-to-read', read: points.length, needed: 4 };
        const changes = context.unit.simulator.changeTravel * (1 - tolerance(context.unit));
        const far = tooFarOn(points, 'pedal_travel', changes);
        if (far) return far;
        const reached = Math.max(...points.map(({ x }) => x));
        const steepest = context.unit.simulator.stiffness2;
        const two = twoLinesOf(points, pointDoubt({ x: 'pedal_travel', y: lever }, steepest, context));
        const missing = stageMissing(reached, context);
        if (!two) {
          const none = missing.code === 'no-second-stage';
          return {
            figures: (moved) => ({
              'stage-1-stiffness': lineThrough(pointsOf(moved.rows)).slope,
              ...(none ? { 'stage-change-travel': Math.max(...pointsOf(moved.rows).map(({ x }) => x)) } : {}),
            }),
            bounds: none ? { 'stage-change-travel': { side: 'above', problem: missing } } : {},
            missing: { 'stage-2-stiffness': missing, 'stage-change-travel': missing },
          };
        }
        return {
          figures: (moved) => {
            const { below, above, joint } = two.linesOf(pointsOf(moved.rows));
            return {
              'stage-1-stiffness': below.slope,
              'stage-2-stiffness': above.slope,
              'stage-change-travel': joint,
            };
          },
        };
      },
    }),
  },
  analyse: (trace, context) => answer(question, trace, context),
  limits: (_analysis, { unit }) => {
    const share = {
      value: tolerance(unit),
      source: { kind: 'sheet', field: 'simulatorTolerancePercent' },
    } as const;
    const { stiffness1, stiffness2, changeTravel } = unit.simulator;
    return [
      around('stage-1-stiffness', stiffness1, share),
      around('stage-2-stiffness', stiffness2, share),
      around('stage-change-travel', changeTravel, share),
    ];
  },
  pictures: [
    plainCurve<ByWireUnit>({
      input: 'pedal_travel',
      outputs: [lever],
      inputEnd: ({ simulator }) => simulator.changeTravel * 1.5,
      band: (unit, travel) => {
        const force = simulatorForce(unit.simulator, travel);
        return [force * (1 - tolerance(unit)), force * (1 + tolerance(unit))];
      },
    }),
  ],
};
