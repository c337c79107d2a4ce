import { lineThrough } from '../../fitting/point-lines';
import { entryFromReadings } from '../../dials/from-readings';
import { byWatch, onGauge } from '../../dials/asked';
import { fitLine } from '../../fitting/line';
import { random, stabilityComponent, systematic } from '../../instruments/uncertainty';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { heldWait } from '../../procedure/guide-phase';
import type { Limit } from '../../procedure/limit';
import { answer, joinAnswers, type Question } from '../../procedure/question';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { CharacteristicId } from '../../quantities/characteristics';
import { neverMoved } from '../../traces/stuck';
import { divisionOf, ownInterval, ownSamples, sampleAt, samplesBetween, type Samples } from '../../traces/own-samples';
import { columnOf, type Trace } from '../../traces/trace';
import { forceForShare, wheels, type ByWireUnit } from './geometry';
import { keyOn, letGo, lever, provedSafe, restAwake, wake, type Context, type Measured } from './step-parts';

const { hypot, max, sqrt } = Math;

/** A hold lasts at least so long, s, and its first part is left out: springs and rubber settle. */
const leastHold = 20;
const settles = 5;
/** Held is what stands above this share of the highest. */
const heldShare = 0.7;
/** The source is up where a wheel stands above this share of hard braking. */
const sourceShare = 0.05;
/** A gap longer than this (s) and than so many of its own intervals is no hold. */
const longestBridge = 0.5;
const bridgedIntervals = 5;
/** Of how a foot's force moves a pedal so much is not known. */
const stiffnessShare = 0.3;
/** Share of hard braking at which it is held, and for how long, s. */
const holdAt = 0.7;
const holdFor = 30;

/** A pedal that was held, and what crept meanwhile. */
interface Hold {
  readonly from: number;
  readonly to: number;
  readonly travel: Samples;
  readonly force: Samples | null;
  /** Highest mean pressure of a wheel, Pa gauge; null where none was recorded. */
  readonly wheel: number | null;
  readonly keyOn: boolean | null;
  /** By how much of itself a wheel's pressure changed meanwhile; 0 where none was recorded. */
  readonly drift: number;
}

function findHold(trace: Trace, channel: string): Hold | NoEvidence {
  const column = columnOf(trace, channel);
  if (!column) return noEvidence({ code: 'channel-missing', channel });
  const of = (id: string) => {
    const found = columnOf(trace, id);
    return found ? ownSamples(trace, found) : null;
  };
  const travel = ownSamples(trace, column);
  const force = of(lever);
  const held = force ?? of('pedal_travel') ?? travel;
  const stretch = longestAbove(held, heldShare);
  if (!stretch) return noEvidence({ code: 'no-pull', channel: force ? lever : 'pedal_travel' });
  const meanOver = (samples: Samples) => {
    const { value } = samplesBetween(samples, stretch.from, stretch.to);
    return value.length === 0 ? Number.NaN : value.reduce((sum, each) => sum + each, 0) / value.length;
  };
  const recorded = wheels.map((wheel) => of(`wheel_pressure_${wheel}`)).filter((samples) => samples !== null);
  const pressures = recorded.map(meanOver).filter(Number.isFinite);
  const key = of('ignition_on');
  const keyed = key ? meanOver(key) : Number.NaN;
  return {
    ...stretch,
    travel,
    force,
    wheel: pressures.length > 0 ? max(...pressures) : null,
    keyOn: Number.isFinite(keyed) ? keyed > 0.5 : null,
    drift: max(0, ...recorded.map((samples) => driftOf(samples, stretch))),
  };
}

/** Change of a channel over a stretch after its settling, as a share of itself, by a straight line. */
function driftOf(samples: Samples, { from, to }: { readonly from: number; readonly to: number }): number {
  const { time, value } = samplesBetween(samples, from + settles, to);
  if (time.length < 8) return 0;
  const line = fitLine(time, value);
  const mean = value.reduce((sum, each) => sum + each, 0) / value.length;
  if (line.termination !== 'converged' || !(mean > 0)) return 0;
  return max(0, Math.abs(line.slope) - 2 * sqrt(line.slopeVariance)) * ((to - from - settles) / mean);
}

/** The longest stretch in which a channel stood above a share of its highest, half a second off at both ends. */
function longestAbove({ time, value }: Samples, share: number): { readonly from: number; readonly to: number } | null {
  const highest = value.reduce((most, each) => max(most, each), -Infinity);
  if (!(highest > 0)) return null;
  let [from, best] = [-1, null as { from: number; to: number } | null];
  const bridge = max(longestBridge, bridgedIntervals * ownInterval({ time }));
  for (let i = 0; i <= value.length; i++) {
    const goesOn = from < 0 || time[i] - time[i - 1] <= bridge;
    if (i < value.length && value[i] >= share * highest && goesOn) {
      if (from < 0) from = i;
      continue;
    }
    if (from >= 0 && (!best || time[i - 1] - time[from] > best.to - best.from))
      best = { from: time[from], to: time[i - 1] };
    // Behind a hole another stretch begins: nobody knows what the foot did meanwhile.
    from = i < value.length && value[i] >= share * highest ? i : -1;
  }
  return best && best.to - best.from > 1 ? { from: best.from + 0.5, to: best.to - 0.5 } : null;
}

function holdEvidence(found: Hold, { unit }: Context, channel: string): Judged<Hold> {
  const seconds = found.to - found.from + 1;
  if (seconds < leastHold) return noEvidence({ code: 'hold-too-short', seconds, needed: leastHold });
  const needed = sourceShare * unit.working;
  if (found.keyOn === false || (found.wheel !== null && found.wheel < needed))
    return noEvidence({ code: 'source-not-up', pressure: found.wheel ?? 0, needed });
  const held = samplesBetween(found.travel, found.from + settles, found.to);
  if (held.time.length < 8)
    return noEvidence({ code: 'too-few-samples', channel, samples: held.time.length, needed: 8 });
  // A gauge that never moved at all was not connected; one that moved when the pedal did may stand still.
  if (neverMoved(found.travel)) return noEvidence({ code: 'gauge-never-moved', channel });
  return evidence(found, [], found.wheel === null && found.keyOn === null ? [{ code: 'source-not-seen-up' }] : []);
}

/** Creep (m/s) by a straight line after the settling; `perForce`: m that a newton of the foot moves it, taken out. */
function creepOf(
  shown: Evidence<Hold>,
  id: CharacteristicId,
  channel: string,
  context: Context,
  { perForce, still }: { readonly perForce: number; readonly still: number },
): Characteristic {
  const from = shown.from + settles;
  const held = samplesBetween(shown.travel, from, shown.to);
  const line = fitLine(
    held.time.map((time) => time - from),
    held.value,
  );
  const seconds = shown.to - from;
  const gauge = context.instruments.get(channel);
  const reading = held.value[sampleAt(held, shown.to) - 1] ?? held.value[held.value.length - 1];
  const drift = gauge ? stabilityComponent(gauge, reading, seconds, context.date).standard / seconds : 0;
  const step = max(gauge?.resolution ?? 0, divisionOf(shown.travel)) / sqrt(12) / seconds;
  const foot = shown.force ? samplesBetween(shown.force, from, shown.to) : null;
  const footLine =
    foot && foot.time.length > 3
      ? fitLine(
          foot.time.map((time) => time - from),
          foot.value,
        )
      : null;
  const followed = footLine?.termination === 'converged' ? footLine.slope * perForce : 0;
  const footNoise = footLine?.termination === 'converged' ? sqrt(footLine.slopeVariance) * perForce : 0;
  return measured(id, line.slope - followed, [
    random('fit', hypot(sqrt(line.slopeVariance), footNoise)),
    systematic('resolution', step),
    systematic('gauge-stability', drift),
    systematic('model', stiffnessShare * followed),
    // What holds a pressure follows it where that changes.
    systematic('model', (still * Math.abs(reading)) / seconds),
  ]);
}

function creepQuestion(id: 'stroke-creep' | 'plunger-creep', channel: string): Question<Context, Hold, Hold> {
  return {
    characteristics: [id],
    happened: (trace) => findHold(trace, channel),
    shows: (found, context) => holdEvidence(found, context, channel),
    comesTo: (shown, context): StepAnalysis => {
      const { stiffness2 } = context.unit.simulator;
      const perForce = id === 'stroke-creep' ? 1 / stiffness2 : 0;
      const still = id === 'stroke-creep' ? 0 : shown.drift;
      const creep = creepOf(shown, id, channel, context, { perForce, still });
      const unread = id === 'stroke-creep' && shown.force === null;
      return { characteristics: [creep], events: [], notes: unread ? [{ code: 'foot-not-recorded' }] : [] };
    },
  };
}

/** Pedal held with the source up: what creeps leaks. */
export function isolationHold(withPlunger: boolean): Measured {
  const ids = withPlunger ? (['stroke-creep', 'plunger-creep'] as const) : (['stroke-creep'] as const);
  const channelOf = { 'stroke-creep': 'pedal_travel', 'plunger-creep': 'plunger_travel' } as const;
  return {
    id: 'isolation-hold',
    kind: 'measured',
    title: 'Isolation hold',
    why: withPlunger
      ? 'Held, neither pedal nor plunger moves: what creeps leaks, past a valve or past a seal.'
      : 'Held, the pedal does not move: what creeps leaks past the isolation valve or out of the simulator.',
    minutes: 2,
    cautions: ['fluid-jet', 'wakes-by-itself'],
    optional: false,
    characteristics: ids,
    ...provedSafe,
    feeds: {
      log: {
        needs: ['pedal_travel'],
        uses: [
          lever,
          ...wheels.map((wheel) => `wheel_pressure_${wheel}`),
          'ignition_on',
          ...(withPlunger ? ['plunger_travel'] : []),
        ],
        leastRows: 20,
      },
      live: {
        rate: 50,
        startsFrom: 'charged',
        guide: (context) => {
          const level = forceForShare(context.unit, holdAt);
          return [
            wake(3),
            {
              instruction: { code: 'pull-to-hold', channel: lever, level, seconds: 2 },
              controls: keyOn,
              lever: { to: level, seconds: 2 },
              end: { kind: 'input-held', level, tolerance: 0.1 * level, seconds: 1 },
            },
            { ...heldWait({ code: 'hold-there', seconds: holdFor }, keyOn, holdFor), lever: { to: level, seconds: 0 } },
            letGo,
            restAwake(2),
          ];
        },
        bands: ({ unit }) => ({ wheel_pressure_fl: [unit.working * holdAt * 0.9, unit.working * holdAt * 1.1] }),
      },
      dials: entryFromReadings<ByWireUnit>({
        characteristics: () => ids,
        rows: () => ({
          least: 2,
          columns: [
            byWatch('after', 'Held for'),
            onGauge('pedal', 'pedal_travel', 'Pedal', { by: 'rule' }),
            ...(withPlunger ? [onGauge('plunger', 'plunger_travel', 'Plunger')] : []),
          ],
        }),
        reckon: ({ rows }) => {
          if (rows.length < 2) return { code: 'rows-still-to-read', read: rows.length, needed: 2 };
          const creep = (read: typeof rows, column: 'pedal' | 'plunger') =>
            lineThrough(read.map((row) => ({ x: row.after, y: row[column] }))).slope;
          return {
            figures: (moved) => ({
              'stroke-creep': creep(moved.rows, 'pedal'),
              ...(withPlunger ? { 'plunger-creep': creep(moved.rows, 'plunger') } : {}),
            }),
          };
        },
      }),
    },
    analyse: (trace, context) => joinAnswers(ids.map((id) => answer(creepQuestion(id, channelOf[id]), trace, context))),
    limits: (_analysis, { unit: { spec } }): Limit[] => {
      const most = (characteristic: CharacteristicId, field: string, value: number): Limit => ({
        characteristic,
        low: (-value * 1e-3) / 60,
        high: (value * 1e-3) / 60,
        expected: 0,
        standard: 0,
        source: { kind: 'sheet', field },
      });
      return [
        most('stroke-creep', 'strokeCreepMaxMmPerMin', spec.strokeCreepMaxMmPerMin),
        ...('plungerCreepMaxMmPerMin' in spec
          ? [most('plunger-creep', 'plungerCreepMaxMmPerMin', spec.plungerCreepMaxMmPerMin)]
          : []),
      ];
    },
    pictures: [{ kind: 'over-time', channels: ['pedal_travel', ...(withPlunger ? ['plunger_travel'] : [])] }],
  };
}
