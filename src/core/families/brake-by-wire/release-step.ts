import { placeTitle } from '../../quantities/places';
import { onGauge } from '../../dials/asked';
import { timedAsked, timedFigure } from '../../dials/timed';
import { entryFromReadings } from '../../dials/from-readings';
import { random, readingComponents, systematic, unreadZero } from '../../instruments/uncertainty';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { wait } from '../../procedure/guide-phase';
import { atMost, limitFrom, type Limit } from '../../procedure/limit';
import { answer, type Question } from '../../procedure/question';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { CharacteristicId } from '../../quantities/characteristics';
import { findPull, isPull, type Pull } from '../../traces/pull';
import { movingMean } from '../../traces/smoothing';
import { together } from '../../traces/together';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import { gaugeLag } from './gauge-doubt';
import { forceForShare, wheels, type Wheel, type ByWireUnit } from './geometry';
import { keyOff, keyOn, letGo, lever, provedSafe, restAwake, wake, type Context, type Measured } from './step-parts';

const { hypot, max, min, round, sqrt } = Math;

/** What was never held at so many times what may stay has nothing to let go of. */
const appliedTimes = 5;
/** What is left is the mean of the last second. */
const residualSeconds = 1;
const holdAt = 0.6;

const ids = ['wheel-release-time', ...wheels.map((wheel) => `wheel-residual@${wheel}` as const)] as const;

/** A pedal that was let go, and the wheels behind it; pressures above what the gauges read with nothing there. */
interface LetGo {
  readonly trace: Trace;
  readonly pull: Pull;
  readonly wheels: readonly Wheel[];
  /** What each gauge read before the unit was woken, Pa; null where the log does not begin asleep. */
  readonly asleep: Readonly<Partial<Record<Wheel, number>>> | null;
  readonly held: number;
  /** Highest wheel pressure between waking and the first touch, Pa gauge. */
  readonly woke: number;
}

const channelOf = (wheel: Wheel) => `wheel_pressure_${wheel}`;

function findLetGo(trace: Trace): LetGo | NoEvidence {
  if (!columnOf(trace, lever)) return noEvidence({ code: 'channel-missing', channel: lever });
  const recorded = wheels.filter((wheel) => columnOf(trace, channelOf(wheel)));
  if (recorded.length === 0) return noEvidence({ code: 'channel-missing', channel: channelOf('fl') });
  const rows = together(trace, [lever, ...recorded.map(channelOf)]);
  const pull = findPull(rows, rows.columns[lever]);
  if (!isPull(pull)) return noEvidence({ code: 'no-pull', channel: lever });
  const key = columnOf(rows, 'ignition_on');
  const wokenAt = key ? key.findIndex((each) => each > 0.5) : 0;
  const enough = wokenAt > 0 && wokenAt <= pull.restBefore.to;
  const zeros = enough
    ? Object.fromEntries(recorded.map((wheel) => [wheel, meanOf(rows.columns[channelOf(wheel)], 0, wokenAt).mean]))
    : null;
  const above = (wheel: Wheel, value: number) => value - (zeros?.[wheel] ?? 0);
  const { restBefore, plateau } = pull;
  return {
    trace: rows,
    pull,
    wheels: recorded,
    asleep: zeros,
    held: min(
      ...recorded.map((wheel) => above(wheel, meanOf(rows.columns[channelOf(wheel)], plateau.from, plateau.to).mean)),
    ),
    woke: max(
      ...recorded.map((wheel) =>
        above(
          wheel,
          movingMean(rows.columns[channelOf(wheel)], 5)
            .subarray(max(wokenAt, restBefore.from), restBefore.to)
            .reduce((most, each) => max(most, each), 0),
        ),
      ),
    ),
  };
}

const residualLimit = ({ unit: { spec }, workshopLimits }: Context) =>
  limitFrom(
    { field: 'residualMaxKpa', value: spec.residualMaxKpa === undefined ? undefined : spec.residualMaxKpa * 1e3 },
    { key: 'residual', value: workshopLimits.residual },
  );

function letGoEvidence(found: LetGo, context: Context): Judged<LetGo> {
  const { trace, pull, held } = found;
  if (pull.wayBack.to >= trace.time.length) return noEvidence({ code: 'no-release' });
  const needed = appliedTimes * residualLimit(context).value;
  if (!(held > needed))
    return noEvidence({ code: 'not-applied', channel: channelOf(found.wheels[0]), peak: held, needed });
  return evidence(
    found,
    found.woke > needed ? [{ code: 'self-applied', pressure: found.woke }] : [],
    wheels
      .filter((wheel) => !found.wheels.includes(wheel))
      .map((wheel) => ({ code: 'channel-missing', channel: channelOf(wheel) })),
  );
}

function residualOf(shown: Evidence<LetGo>, wheel: Wheel, context: Context): Characteristic {
  const id = `wheel-residual@${wheel}` as const satisfies CharacteristicId;
  const column = columnOf(shown.trace, channelOf(wheel));
  if (!column || !shown.wheels.includes(wheel))
    return absent(id, { code: 'channel-missing', channel: channelOf(wheel) });
  const from = max(shown.pull.wayBack.to, column.length - round(residualSeconds / sampleInterval(shown.trace)));
  const { mean, deviation, count } = meanOf(column, from);
  if (count < 2) return absent(id, { code: 'no-rest-after', seconds: residualSeconds });
  const zero = shown.asleep?.[wheel];
  const gauge = context.instruments.get(channelOf(wheel));
  return measured(id, mean - (zero ?? 0), [
    random('noise', (Math.SQRT2 * deviation) / sqrt(count)),
    ...(gauge ? readingComponents(gauge, mean, context.date) : []),
    ...(gauge && zero === undefined ? [systematic('gauge-zero', unreadZero(gauge, context.date))] : []),
  ]);
}

function releaseTimeOf(shown: Evidence<LetGo>, context: Context): Characteristic {
  const { trace, pull } = shown;
  const limit = residualLimit(context).value;
  const force = trace.columns[lever];
  const interval = sampleInterval(trace);
  const zero = pull.zero ?? 0;
  const threshold = zero + 0.1 * (pull.peak - zero);
  let starts = pull.plateau.to;
  while (starts < force.length && force[starts] > threshold) starts++;
  let slowest = 0;
  let doubt = 0;
  for (const wheel of shown.wheels) {
    const smooth = movingMean(trace.columns[channelOf(wheel)], max(1, round(0.02 / interval)));
    const still = shown.asleep?.[wheel] ?? 0;
    let ends = starts;
    while (ends < smooth.length && smooth[ends] - still > limit) ends++;
    if (ends >= smooth.length) {
      const waited = trace.time[smooth.length - 1] - trace.time[min(starts, smooth.length - 1)];
      return beyond(
        'wheel-release-time',
        'above',
        { value: waited, components: [] },
        { code: 'residual-never-reached', level: limit },
      );
    }
    slowest = max(slowest, trace.time[ends] - trace.time[starts]);
    doubt = max(doubt, hypot(...gaugeLag(context, channelOf(wheel)).components.map((part) => part.standard)));
  }
  // Down to what may stay takes a few of a line's time constants.
  return measured('wheel-release-time', slowest, [
    random('timing', interval / sqrt(6)),
    systematic('timing', 4 * doubt),
  ]);
}

const question: Question<Context, LetGo, LetGo> = {
  characteristics: ids,
  happened: findLetGo,
  shows: letGoEvidence,
  comesTo: (shown, context): StepAnalysis => ({
    characteristics: [releaseTimeOf(shown, context), ...wheels.map((wheel) => residualOf(shown, wheel, context))],
    events: [],
    notes: shown.asleep ? [] : [{ code: 'zero-not-read-asleep' }],
  }),
};

/** Woken with nobody at the pedal, then pressed and let go: no wheel keeps anything. */
export const release: Measured = {
  id: 'release',
  kind: 'measured',
  title: 'Waking up and letting go',
  why: 'It wakes without braking, and once the pedal is let go no wheel keeps pressure, or that brake drags.',
  minutes: 2,
  cautions: ['fluid-jet', 'wakes-by-itself'],
  optional: false,
  characteristics: ids,
  ...provedSafe,
  feeds: {
    log: { needs: [lever], uses: [...wheels.map(channelOf), 'ignition_on'], leastRows: 40 },
    live: {
      startsFrom: 'empty',
      guide: (context) => {
        const level = forceForShare(context.unit, holdAt);
        return [
          wait({ code: 'rest', seconds: 2 }, keyOff, 2),
          wake(5),
          {
            instruction: { code: 'pull-to-hold', channel: lever, level, seconds: 1 },
            controls: keyOn,
            lever: { to: level, seconds: 2 },
            end: { kind: 'input-held', level, tolerance: 0.1 * level, seconds: 1.2 },
          },
          letGo,
          restAwake(5),
        ];
      },
      bands: (context) =>
        Object.fromEntries(wheels.map((wheel) => [channelOf(wheel), [0, residualLimit(context).value]])),
    },
    dials: entryFromReadings<ByWireUnit>({
      characteristics: () => ids,
      once: () => [
        ...timedAsked('let-go', 'From letting go until the slowest wheel stands'),
        ...wheels.flatMap((wheel) => [
          onGauge(`${wheel}-before`, channelOf(wheel), `Before the push, ${placeTitle(wheel)}`),
          onGauge(`${wheel}-after`, channelOf(wheel), `Once it stands, ${placeTitle(wheel)}`),
        ]),
      ],
      reckon: ({ once }) => {
        const time = timedFigure(once, 'let-go', 'wheel-release-time');
        return {
          figures: (moved) => ({
            'wheel-release-time': time.of(moved.once),
            ...Object.fromEntries(
              wheels.map((wheel) => [
                `wheel-residual@${wheel}`,
                moved.once[`${wheel}-after`] - moved.once[`${wheel}-before`],
              ]),
            ),
          }),
          bounds: time.bounds,
        };
      },
    }),
  },
  analyse: (trace, context) => answer(question, trace, context),
  limits: (_analysis, context): Limit[] => [
    atMost(
      'wheel-release-time',
      limitFrom(
        { field: 'releaseTimeMaxS', value: context.unit.spec.releaseTimeMaxS },
        { key: 'releaseTime', value: context.workshopLimits.releaseTime },
      ),
      { expected: 0 },
    ),
    ...wheels.map((wheel) => atMost(`wheel-residual@${wheel}`, residualLimit(context), { expected: 0 })),
  ],
  pictures: [{ kind: 'over-time', channels: wheels.map(channelOf) }],
};
