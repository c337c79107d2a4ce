import { heightAt, lineThrough } from '../../fitting/point-lines';
import { pointDoubt, tooFarOn, twoLinesOf } from '../../dials/rows-curve';
import { entryFromReadings, type Reckoned, type TakenReadings } from '../../dials/from-readings';
import { onGauge } from '../../dials/asked';
import { fitLine } from '../../fitting/line';
import { binByX, fitSegments } from '../../fitting/segments';
import { differenceComponents, random, systematic, type UncertaintyComponent } from '../../instruments/uncertainty';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { around, type Limit } from '../../procedure/limit';
import { plainCurve } from '../../procedure/picture';
import { answer, type Question } from '../../procedure/question';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import { findPull, isPull } from '../../traces/pull';
import { together } from '../../traces/together';
import { columnOf, meanOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { FoundationUnit } from './geometry';
import { rearWindow } from './rear-window';
import { assistedFoot, engineOn, pedal, startEngine, type Context, type Measured } from './step-parts';

const { hypot, max, sqrt } = Math;

const ids = ['split-pressure', 'rear-slope', 'lower-slope'] as const;

/** Read from this share of the highest front pressure on: below it springs and friction of the valve speak. */
const readFrom = 0.04;
const bins = 90;
const fewestPoints = 24;
/** A joint is one where the slope falls to this share or less, with so many bins on either side. */
const gentler = 0.9;
const fewestBins = 4;
/** Front pressure that is pressed to, times the split. */
const beyondSplit = 2.1;
/** The rear comes later than the front by about this, s. */
const behind = 0.04;
/** How far off one to one the rear is drawn below the joint. */
const oneToOne = 0.05;
/** What leaves a line by more than this share of the front's peak is not straight. */
const straight = 0.03;
/** A rear that moves by less than this share of the front's is not known to be alive. */
const alive = 0.01;

/** Rear over front while the pedal is pressed, Pa, each from its rest. */
interface Pressed {
  readonly front: Float64Array;
  readonly rear: Float64Array;
  readonly peak: number;
  /** Rear while the front is at its peak, Pa. */
  readonly rearPeak: number;
  /** How fast the front was pressed on the whole, Pa/s. */
  readonly rate: number;
}

function findPressed(trace: Trace): Pressed | NoEvidence {
  for (const channel of ['front_pressure', 'rear_pressure'])
    if (!columnOf(trace, channel)) return noEvidence({ code: 'channel-missing', channel });
  const rows = together(trace, ['front_pressure', 'rear_pressure']);
  const pull = findPull(rows, rows.columns.front_pressure);
  if (!isPull(pull)) return noEvidence({ code: 'no-pull', channel: 'front_pressure' });
  const { restBefore, plateau } = pull;
  const rested = restBefore.to > restBefore.from;
  const zero = rested ? meanOf(rows.columns.rear_pressure, restBefore.from, restBefore.to).mean : 0;
  return {
    front: rows.columns.front_pressure.subarray(restBefore.to, plateau.to).map((value) => value - (pull.zero ?? 0)),
    rear: rows.columns.rear_pressure.subarray(restBefore.to, plateau.to).map((value) => value - zero),
    peak: pull.peak - (pull.zero ?? 0),
    rearPeak: meanOf(rows.columns.rear_pressure, plateau.from, plateau.to).mean - zero,
    rate: (pull.peak - (pull.zero ?? 0)) / max(0.1, rows.time[plateau.from] - rows.time[restBefore.to]),
  };
}

function pressEvidence(found: Pressed): Judged<Pressed> {
  const points = found.front.filter((value) => value >= readFrom * found.peak).length;
  if (points < fewestPoints)
    return noEvidence({ code: 'too-few-samples', channel: 'front_pressure', samples: points, needed: fewestPoints });
  const still = Math.abs(found.rearPeak) < alive * found.peak;
  return still ? noEvidence({ code: 'gauge-never-moved', channel: 'rear_pressure' }) : evidence(found);
}

/** What both gauges may be off by: as a share of a slope, and at a pressure of the front, Pa. */
function gaugeParts({ instruments, date }: Context, peak: number) {
  const at = (channel: string, pressure: number): readonly UncertaintyComponent[] => {
    const gauge = instruments.get(channel);
    return gauge ? differenceComponents(gauge, 0, pressure, date) : [];
  };
  const size = (parts: readonly UncertaintyComponent[]) => hypot(...parts.map((part) => part.standard));
  return {
    ofSlope: hypot(size(at('front_pressure', peak)), size(at('rear_pressure', peak))) / peak,
    ofFront: (pressure: number) => at('front_pressure', pressure),
    ofRear: (pressure: number) => size(at('rear_pressure', pressure)),
  };
}

function linesOf({ front, rear, peak, rate }: Evidence<Pressed>, context: Context): StepAnalysis {
  const data = binByX(front, rear, bins, { keep: (i) => front[i] >= readFrom * peak });
  const { ofSlope, ofFront, ofRear } = gaugeParts(context, peak);
  const slope = (id: (typeof ids)[number], value: number, variance: number) =>
    measured(id, value, [random('fit', sqrt(max(0, variance))), systematic('gauge-gain', Math.abs(value) * ofSlope)]);
  const two = fitSegments(data, 2);
  const joint = two.breaks[0] ?? Number.NaN;
  const above = data.x.filter((x) => x > joint).length;
  const found =
    two.termination === 'converged' &&
    two.slopes[0] > 0 &&
    two.slopes[1] < gentler * two.slopes[0] &&
    above >= fewestBins &&
    data.x.length - above >= fewestBins;
  if (found) {
    const ofSecond = two.covariance[1][1] + two.covariance[2][2] + 2 * two.covariance[1][2];
    return {
      characteristics: [
        measured('split-pressure', joint, [
          random('fit', sqrt(max(0, two.covariance[3][3]))),
          ...ofFront(joint),
          // What the rear is off by moves the joint by more, the less the lines bend; and it comes later than the front.
          systematic('gauge-gain', ofRear(joint) / (two.slopes[0] - two.slopes[1])),
          systematic('timing', rate * behind),
        ]),
        slope('rear-slope', two.slopes[1], ofSecond),
        slope('lower-slope', two.slopes[0], two.covariance[1][1]),
      ],
      events: [{ id: 'knee', time: null, x: joint, y: two.intercept + two.slopes[0] * joint }],
      notes: [],
    };
  }
  return oneLine(data, peak, ofFront, slope);
}

/** What is straight all the way has no split in it, or is behind all the way; what is not straight is neither. */
function oneLine(
  data: ReturnType<typeof binByX>,
  peak: number,
  ofFront: ReturnType<typeof gaugeParts>['ofFront'],
  slope: (id: (typeof ids)[number], value: number, variance: number) => Characteristic,
): StepAnalysis {
  const line = fitLine(data.x, data.y, { weights: data.weight });
  const none = (problem: AnalysisProblem) => ({
    characteristics: ids.map((id) => absent(id, problem)),
    events: [],
    notes: [],
  });
  if (line.termination !== 'converged') return none({ code: 'fit-failed', termination: line.termination });
  const off = Array.from(data.x, (x, at) => Math.abs(data.y[at] - line.intercept - line.slope * x));
  if (max(...off) > straight * peak) return none({ code: 'neither-line', off: max(...off) });
  const behindAll = line.slope < gentler;
  const problem: AnalysisProblem = behindAll
    ? { code: 'behind-from-the-start', slope: line.slope }
    : { code: 'no-split', reached: peak };
  return {
    characteristics: [
      behindAll
        ? absent('split-pressure', problem)
        : beyond('split-pressure', 'above', { value: peak, components: ofFront(peak) }, problem),
      absent('rear-slope', problem),
      slope('lower-slope', line.slope, line.slopeVariance),
    ],
    events: [],
    notes: [],
  };
}

const question: Question<Context, Pressed, Pressed> = {
  characteristics: ids,
  happened: findPressed,
  shows: pressEvidence,
  comesTo: linesOf,
};

function limitsOf({ unit, workshopLimits }: Context): readonly Limit[] {
  const {
    vehicle: { proportioning },
    splitTolerance,
    slopeTolerance,
  } = unit;
  const lower = around('lower-slope', 1, {
    value: workshopLimits.lowerSlope,
    source: { kind: 'workshop', key: 'lowerSlope' },
  });
  if (!proportioning) return [lower];
  const { split, slope } = proportioning;
  return [
    {
      characteristic: 'split-pressure',
      low: split * (1 - splitTolerance),
      high: split * (1 + splitTolerance),
      expected: split,
      standard: 0,
      source: { kind: 'sheet', field: 'splitTolerancePercent' },
    },
    {
      characteristic: 'rear-slope',
      low: slope - slopeTolerance,
      high: slope + slopeTolerance,
      expected: slope,
      standard: 0,
      source: { kind: 'sheet', field: 'rearSlopeTolerance' },
    },
    lower,
  ];
}

/** Front pressure that the press goes to, Pa. */
const pressTo = ({ vehicle }: FoundationUnit) => (vehicle.proportioning?.split ?? 3e6) * beyondSplit;

/** Rows of both gauges: two lines that bend at the split; one that is straight has no split in it, or is behind all the way. */
function reckonRows({ rows }: TakenReadings, context: Context): Reckoned | AnalysisProblem {
  const pointsOf = (read: TakenReadings['rows']) => read.map(({ front, rear }) => ({ x: front, y: rear }));
  const points = pointsOf(rows).filter(({ x }) => x > 0);
  if (points.length < 4) return { code: 'rows-still-to-read', read: points.length, needed: 4 };
  const peak = Math.max(...points.map(({ x }) => x));
  if (Math.max(...points.map(({ y }) => y)) < alive * peak)
    return { code: 'gauge-never-moved', channel: 'rear_pressure' };
  const { vehicle, splitTolerance } = context.unit;
  const bends = vehicle.proportioning ? vehicle.proportioning.split * (1 - splitTolerance) : null;
  const far = tooFarOn(points, 'front_pressure', bends);
  if (far) return far;
  const doubt = pointDoubt({ x: 'front_pressure', y: 'rear_pressure' }, 1, context);
  const two = twoLinesOf(points, doubt);
  const { below, above } = two?.linesOf(points) ?? {};
  const inUse = (read: TakenReadings) => pointsOf(read.rows).filter((_, at) => rows[at].front > 0);
  if (two && below && above && above.slope < gentler * below.slope)
    return {
      figures: (moved) => {
        const lines = two.linesOf(inUse(moved));
        return {
          'split-pressure': lines.joint,
          'rear-slope': lines.above.slope,
          'lower-slope': lines.below.slope,
        };
      },
    };
  const line = lineThrough(points);
  const off = Math.max(...points.map(({ x, y }) => Math.abs(y - heightAt(line, x))));
  if (off > straight * peak) return { code: 'neither-line', off };
  const behindAll = line.slope < gentler;
  const problem: AnalysisProblem = behindAll
    ? { code: 'behind-from-the-start', slope: line.slope }
    : { code: 'no-split', reached: peak };
  return {
    figures: (moved) => ({
      'lower-slope': lineThrough(inUse(moved)).slope,
      ...(behindAll ? {} : { 'split-pressure': Math.max(...inUse(moved).map(({ x }) => x)) }),
    }),
    bounds: behindAll ? {} : { 'split-pressure': { side: 'above', problem } },
    missing: { 'split-pressure': problem, 'rear-slope': problem },
  };
}

/** Rear over front, over where a sound valve lets it lie. */
export const proportioningCurve = plainCurve<FoundationUnit>({
  input: 'front_pressure',
  outputs: ['rear_pressure'],
  inputEnd: pressTo,
  band: (unit, front) => {
    const [low, high] = rearWindow(unit, front);
    return [low * (1 - oneToOne), high * (1 + oneToOne)];
  },
});

export const proportioning: Measured = {
  id: 'proportioning',
  kind: 'measured',
  title: 'Rear against front',
  why: 'The rear follows the front to the split pressure and falls behind beyond it. A valve that has shifted locks the rear wheels, or leaves them idle.',
  minutes: 5,
  cautions: ['running-engine', 'vehicle-still', 'fluid-jet'],
  optional: false,
  characteristics: ids,
  feeds: {
    log: { needs: ['front_pressure', 'rear_pressure'], uses: [pedal, 'engine_on'], leastRows: 40, bandwidth: 20 },
    live: {
      startsFrom: 'charged',
      guide: ({ unit }) => {
        const level = Math.min(500, assistedFoot(unit, pressTo(unit)));
        return [
          startEngine(4),
          {
            instruction: { code: 'pull-slowly-past', channel: pedal, level },
            controls: engineOn,
            lever: { to: level * 1.03, seconds: 12 },
            end: { kind: 'input-above', level },
          },
          {
            instruction: { code: 'let-back-slowly', channel: pedal },
            controls: engineOn,
            lever: { to: 0, seconds: 4 },
            end: { kind: 'input-below', level: 10 },
          },
          { ...startEngine(1.5), instruction: { code: 'rest', seconds: 1.5 } },
        ];
      },
      bands: () => ({}),
    },
    dials: entryFromReadings<FoundationUnit>({
      characteristics: () => ids,
      rows: ({ unit }) => ({
        least: 4,
        columns: [
          onGauge('front', 'front_pressure', 'Front'),
          onGauge('rear', 'rear_pressure', 'Rear', {
            expected: ({ front }) => {
              if (front === undefined) return null;
              const [low, high] = rearWindow(unit, front);
              return { low: low * (1 - oneToOne), high: high * (1 + oneToOne) };
            },
          }),
        ],
      }),
      reckon: reckonRows,
    }),
  },
  analyse: (trace, context) => answer(question, trace, context),
  limits: (_analysis, context) => limitsOf(context),
  pictures: [proportioningCurve],
};
