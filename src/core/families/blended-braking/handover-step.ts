import { evidence, noEvidence } from '../../procedure/evidence';
import { answer, type Question } from '../../procedure/question';
import { closureChannels } from './drive';
import { deepestOf, handoversOf, type Handover } from './handover';
import { asMeasured, closedLog, isUnread, type ClosedLog, type Context } from './read-log';
import { shareOfLargest } from './shares';
import { driveStep } from './step-parts';

interface HandedOver {
  readonly read: ClosedLog;
  readonly handovers: readonly Handover[];
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
      ? evidence({ ...found, deepest }, found.read.notes, found.read.doubts)
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
