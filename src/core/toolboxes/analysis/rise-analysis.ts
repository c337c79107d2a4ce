import { random, systematic } from '../../instruments/uncertainty';
import { beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import type { Question } from '../../procedure/question';
import type { Characteristic } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import type { CharacteristicId } from '../../quantities/characteristics';
import { findPull, isPull, type Pull } from '../../traces/pull';
import { movingMean } from '../../traces/smoothing';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

/** Lag of a long thin line of which nothing is recorded, s: to nine tenths it makes 2.3 times as much. */
const longestLag = 0.2;
const toNineTenths = Math.log(10);
/** What of a recorded lag is not known. */
const recordShare = 0.4;

/** Which output a lever moves, and what is asked of it. */
export interface PressSetup {
  /** Channel of the lever, and of the output (Pa gauge). */
  readonly lever: string;
  readonly channel: string;
  /** What is said where nothing was pressed. */
  readonly notPulled: AnalysisProblem;
  /** `…` s of the hold are read, all of it where left out. */
  readonly lastSeconds?: number;
  /** An output held at less than this was never applied, Pa gauge. */
  readonly needed: number;
}

/** A lever that was pressed and held, and what one output did: pressures Pa gauge above its zero. */
export interface Pressed {
  readonly trace: Trace;
  readonly pull: Pull;
  readonly zero: number;
  readonly held: number;
}

/** What an output did while the lever was pressed. */
export function findPressed(trace: Trace, setup: PressSetup): Pressed | NoEvidence {
  const { lever, channel, notPulled, lastSeconds = Infinity } = setup;
  const moved = columnOf(trace, lever);
  const column = columnOf(trace, channel);
  if (!moved || !column) return noEvidence({ code: 'channel-missing', channel: moved ? channel : lever });
  const pull = findPull(trace, moved);
  if (!isPull(pull)) return noEvidence(notPulled);
  const { plateau, restBefore } = pull;
  const zero = meanOf(column, restBefore.from, restBefore.to).mean;
  const from = Math.max(plateau.from, plateau.to - Math.round(lastSeconds / sampleInterval(trace)));
  return { trace, pull, zero, held: meanOf(column, from, plateau.to).mean - zero };
}

/** What was never under pressure has no rise to be timed and leaves nothing behind. */
export function pressedEvidence(found: Pressed, { channel, needed }: PressSetup): Judged<Pressed> {
  return found.held > needed ? evidence(found) : noEvidence({ code: 'not-applied', channel, peak: found.held, needed });
}

/** Time from the lever passing 10 % of its way to the output passing 90 % of what is held at last, s. */
export function riseQuestion<Context extends StepContext<unknown>>(
  id: CharacteristicId,
  setupOf: (context: Context) => PressSetup,
): Question<Context, Pressed, Pressed> {
  return {
    characteristics: [id],
    happened: (trace, context) => findPressed(trace, { ...setupOf(context), lastSeconds: 0.5 }),
    shows: (found, context) => pressedEvidence(found, setupOf(context)),
    comesTo: (shown, context) => ({
      characteristics: [riseOf(shown, context, setupOf(context), id)],
      events: [],
      notes: [],
    }),
  };
}

function riseOf(
  { trace, pull, zero, held }: Evidence<Pressed>,
  context: StepContext<unknown>,
  { lever, channel }: PressSetup,
  id: CharacteristicId,
): Characteristic {
  const moved = trace.columns[lever];
  const interval = sampleInterval(trace);
  const smooth = movingMean(trace.columns[channel], Math.max(1, Math.round(0.01 / interval)));
  let begin = pull.restBefore.to;
  const threshold = (pull.zero ?? 0) + 0.1 * (pull.peak - (pull.zero ?? 0));
  while (begin < moved.length && moved[begin] < threshold) begin++;
  let end = begin;
  while (end < smooth.length && smooth[end] - zero < 0.9 * held) end++;
  if (end >= pull.plateau.to) {
    const seconds = trace.time[Math.min(end, trace.time.length - 1)] - trace.time[begin];
    return beyond(id, 'above', { value: seconds, components: [] }, { code: 'no-step' });
  }
  // The stamp itself takes a moment, which nobody does twice alike: what is slow may be the foot's.
  const seen = trace.time[end] - trace.time[begin];
  const foot = Math.min(seen, footSeconds(moved, trace.time, pull, begin));
  const timing = random('timing', Math.hypot(interval / Math.sqrt(6), 0.01));
  const recorded = context.instruments.get(channel)?.lagSeconds;
  if (recorded !== undefined)
    return measured(id, Math.max(0, seen - foot / 2 - toNineTenths * recorded), [
      timing,
      systematic('timing', toNineTenths * recordShare * recorded),
      systematic('timing', foot / 2 / Math.sqrt(3)),
    ]);
  // A line makes a rise longer, never shorter: what is quick is the circuit's own, what is slow may be the line's in part.
  const most = toNineTenths * longestLag;
  return seen <= most
    ? beyond(id, 'below', { value: seen, components: [timing] }, { code: 'line-in-rise', channel, seconds: most })
    : measured(id, seen - foot / 2 - most / 2, [
        timing,
        systematic('timing', most / 2 / Math.sqrt(3)),
        systematic('timing', foot / 2 / Math.sqrt(3)),
      ]);
}

/** How long a lever takes from a tenth of its way, passed at sample `begin`, to nine tenths, s. */
function footSeconds(moved: Float64Array, time: Float64Array, { zero, peak }: Pull, begin: number): number {
  const from = zero ?? 0;
  const arrived = from + 0.9 * (peak - from);
  let at = begin;
  while (at < moved.length - 1 && moved[at] < arrived) at++;
  return time[at] - time[begin];
}
