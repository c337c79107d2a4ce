import { absent, beyond } from '../../procedure/analysis-result';
import { evidence, noEvidence } from '../../procedure/evidence';
import { atMost } from '../../procedure/limit';
import { answer, type Question } from '../../procedure/question';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { closureChannels } from './drive';
import { panicDelays, panicRateLeast, type Panic } from './panic';
import { meanInterval } from '../../traces/time-mean';
import { asMeasured, isUnread, readLog, type Context } from './read-log';
import { ownGain } from './sensor-doubt';
import { driveStep } from './step-parts';

interface Stamped {
  readonly panics: readonly Panic[];
  readonly notes: readonly AnalysisProblem[];
}

type Kind<K extends Panic['kind']> = Extract<Panic, { readonly kind: K }>;

function ofKind<K extends Panic['kind']>(panics: readonly Panic[], kind: K): readonly Kind<K>[] {
  return panics.filter((each): each is Kind<K> => each.kind === kind);
}

/** The slowest of all answers; one that never came took at least as long as the braking. */
function slowest(panics: readonly Panic[]): Characteristic {
  const answered = ofKind(panics, 'answered').toSorted((a, b) => b.delay.value - a.delay.value);
  const never = ofKind(panics, 'not-answered').toSorted((a, b) => b.atLeast.value - a.atLeast.value);
  const [late] = answered;
  const [longest] = never;
  if (longest && (!late || longest.atLeast.value >= late.delay.value))
    return beyond('panic-delay', 'above', longest.atLeast, { code: 'panic-not-answered', found: never.length });
  return late
    ? asMeasured('panic-delay', late.delay)
    : absent('panic-delay', { code: 'panic-not-recorded', found: panics.length });
}

function analysed({ panics }: Stamped): StepAnalysis {
  const of = (kind: Panic['kind']) => panics.filter((each) => each.kind === kind).length;
  const [never, unbraked, unrecorded] = [of('not-answered'), of('not-braked'), of('not-recorded')];
  const doubts: AnalysisProblem[] = [
    ...(unbraked > 0 ? [{ code: 'panic-not-braked', found: unbraked } as const] : []),
    ...(unrecorded > 0 ? [{ code: 'panic-not-recorded', found: unrecorded } as const] : []),
    // A longer answer than the longest that never came is no pass for that one.
    ...(never > 0 ? [{ code: 'panic-not-answered', found: never } as const] : []),
  ];
  return {
    characteristics: [slowest(panics)],
    events: panics.map(({ at }) => ({ id: 'panic', time: at })),
    notes: [{ code: 'panics', found: panics.length, answered: of('answered') }],
    doubts,
  };
}

const question: Question<Context, Stamped, Stamped> = {
  characteristics: ['panic-delay'],
  happened: (trace, context) => {
    const read = readLog(trace, context);
    if (isUnread(read)) return read;
    const { travel, panics, drive, doubt } = read;
    if (!travel) return noEvidence({ code: 'channel-missing', channel: 'pedal_travel' });
    if (!panics) return noEvidence({ code: 'panics-not-told', rate: 1 / meanInterval(travel), needed: panicRateLeast });
    const frictionDoubt = Math.max(ownGain, ...doubt.gains);
    return { panics: panicDelays(drive, panics, travel, frictionDoubt), notes: read.notes };
  },
  shows: (stamped, { unit }) =>
    stamped.panics.length > 0
      ? evidence(stamped, stamped.notes)
      : noEvidence({ code: 'no-panic', threshold: unit.panicRate }),
  comesTo: analysed,
};

export const panicEventsStep = driveStep({
  id: 'panic-events',
  title: 'Panic stops',
  why: 'It is the rate of the pedal that marks a panic: the motor must let go and the pressure rise at once, or the wheels that slip are braked by a motor that no slip control reaches.',
  minutes: 2,
  characteristics: ['panic-delay'],
  needs: [...closureChannels, 'pedal_travel'],
  uses: ['vehicle_speed'],
  analyse: (trace, context) => answer(question, trace, context),
  limits: (_analysis, { unit }) => [
    atMost('panic-delay', { value: unit.panicDelayMost, source: { kind: 'sheet', field: 'panicDelayMaxS' } }),
  ],
});
