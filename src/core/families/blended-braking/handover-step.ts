import { evidence, noEvidence } from '../../procedure/evidence';
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

/** The handover before which most was missing, where a dip may hide behind that. */
function openBefore({ read, handovers }: HandedOver, unit: BlendedUnit): readonly AnalysisProblem[] {
  const beyond = (open: Estimate) => Math.abs(open.value) - expandedUncertainty(open);
  const [most] = handovers.map(({ open }) => open).toSorted((a, b) => beyond(b) - beyond(a));
  return most && beyond(most) > mayHide * unit.handoverDipMost * read.drive.largest
    ? [{ code: 'open-before-handover', torque: most.value }]
    : [];
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
      ? evidence({ ...found, deepest }, found.read.notes, [...found.read.doubts, ...openBefore(found, unit)])
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
