import { evidence, noEvidence, type Judged } from '../../procedure/evidence';
import { answer, type Question } from '../../procedure/question';
import { expandedUncertainty, type Estimate } from '../../instruments/uncertainty';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { closureChannels } from './drive';
import type { BlendedUnit } from './geometry';
import { deepestOf, handoversOf, type Handover } from './handover';
import { asMeasured, closedLog, isUnread, type ClosedLog, type Context } from './read-log';
import { shareOfLargest } from './shares';
import { driveStep } from './step-parts';

interface HandedOver {
  readonly read: ClosedLog;
  readonly handovers: readonly Handover[];
}

/** So much of the limit of a dip, missing before a handover, may hide one. */
const mayHide = 0.5;

/** Handovers before which so much was missing that a dip may hide behind it, the most of it first. */
function openBefore({ read, handovers }: HandedOver, unit: BlendedUnit): readonly Estimate[] {
  const beyond = (open: Estimate) => Math.abs(open.value) - expandedUncertainty(open);
  return handovers
    .map(({ open }) => open)
    .filter((open) => beyond(open) > mayHide * unit.handoverDipMost * read.drive.largest)
    .toSorted((a, b) => beyond(b) - beyond(a));
}

/** The log shows handovers; where most of them are open before they begin, what is deepest is no pass. */
function handedOver(
  found: HandedOver,
  deepest: Handover,
  unit: BlendedUnit,
): Judged<HandedOver & { readonly deepest: Handover }> {
  const open = openBefore(found, unit);
  const said: readonly AnalysisProblem[] =
    open.length > 0
      ? [{ code: 'open-before-handover', torque: open[0].value, found: open.length, of: found.handovers.length }]
      : [];
  const most = 2 * open.length > found.handovers.length;
  const { notes, doubts } = found.read;
  return evidence({ ...found, deepest }, most ? notes : [...notes, ...said], most ? [...doubts, ...said] : doubts);
}

const question: Question<Context, HandedOver, HandedOver & { readonly deepest: Handover }> = {
  characteristics: ['handover-dip'],
  happened: (trace, context) => {
    const read = closedLog(trace, context);
    if (isUnread(read)) return read;
    if (!read.speed) return noEvidence({ code: 'channel-missing', channel: 'vehicle_speed' });
    return { read, handovers: handoversOf(context.unit, read.drive, read.closure, read.speed, read.doubt) };
  },
  shows: (found, { unit }) => {
    const deepest = deepestOf(found.handovers);
    return deepest
      ? handedOver(found, deepest, unit)
      : noEvidence({ code: 'no-handover', high: unit.handoverHigh, low: unit.handoverLow });
  },
  comesTo: ({ read, handovers, deepest }) => ({
    characteristics: [asMeasured('handover-dip', deepest.dip)],
    events: handovers.map(({ at }) => ({ id: 'handover', time: at })),
    notes: [{ code: 'handovers', found: handovers.length }],
    largestRequest: read.drive.largest,
  }),
};

export const handover = driveStep({
  id: 'handover',
  title: 'Handover at walking pace',
  why: 'Near walking pace the motor lets go and friction takes over. Where the two do not meet, the vehicle lurches, and no bench shows it.',
  minutes: 2,
  characteristics: ['handover-dip'],
  needs: [...closureChannels, 'vehicle_speed'],
  uses: ['pedal_travel'],
  analyse: (trace, context) => answer(question, trace, context),
  limits: (analysis, { unit }) => [
    shareOfLargest('handover-dip', analysis, unit.handoverDipMost, 'handoverDipMaxPercent'),
  ],
});
