import { absent } from '../../procedure/analysis-result';
import { evidence, noEvidence } from '../../procedure/evidence';
import { answer, type Question } from '../../procedure/question';
import { closureChannels, samplesOf } from './drive';
import { onClock, type Clocked } from './drive-clock';
import { unfilledTorque } from './regen-limit';
import { asMeasured, closedLog, isUnread, type ClosedLog, type Context } from './read-log';
import { shareOfLargest } from './shares';
import { driveStep } from './step-parts';

/** A charge that never exceeds this many per cent, and is not nothing, is a share of one that was taken for per cent. */
const shareAsPercent = 0.0105;

interface Charged {
  readonly read: ClosedLog;
  readonly charge: Clocked;
  /** Highest of the whole log, and while somebody braked; shares. */
  readonly highest: number;
  readonly whileBraking: number;
  /** s, when the battery was first full; null where it never was. */
  readonly fullFrom: number | null;
}

const question: Question<Context, Charged, Charged> = {
  characteristics: ['unfilled-torque'],
  happened: (trace, context) => {
    const read = closedLog(trace, context);
    if (isUnread(read)) return read;
    const samples = samplesOf(trace, 'battery_charge');
    if (!samples) return noEvidence({ code: 'channel-missing', channel: 'battery_charge' });
    const { clock, braking } = read.drive;
    // A charge is told when it changes, or once a second: it is what it last was.
    const charge = onClock(samples, clock, 'held');
    let [highest, whileBraking, first] = [0, 0, -1];
    for (let i = 0; i < clock.count; i++) {
      if (charge.known[i] === 0) continue;
      highest = Math.max(highest, charge.value[i]);
      if (braking[i] === 1) whileBraking = Math.max(whileBraking, charge.value[i]);
      if (first < 0 && charge.value[i] >= context.unit.regenLimitCharge) first = i;
    }
    return { read, charge, highest, whileBraking, fullFrom: first < 0 ? null : clock.start + first * clock.step };
  },
  shows: (charged, { unit: { regenLimitCharge } }) => {
    const { highest, whileBraking, read } = charged;
    if (highest > 0 && highest < shareAsPercent)
      return noEvidence({ code: 'charge-as-a-share', highest: 100 * highest });
    if (whileBraking < regenLimitCharge)
      return noEvidence({ code: 'never-full', highest: whileBraking, limit: regenLimitCharge });
    return evidence(charged, read.notes, read.doubts);
  },
  comesTo: ({ read, charge, fullFrom }, { unit }) => {
    const unfilled = unfilledTorque(unit, read.drive, read.closure, charge, read.doubt);
    return {
      characteristics: [
        unfilled
          ? asMeasured('unfilled-torque', unfilled)
          : absent('unfilled-torque', { code: 'never-full', highest: 0, limit: unit.regenLimitCharge }),
      ],
      events: fullFrom === null ? [] : [{ id: 'full', time: fullFrom }],
      notes: [],
      largestRequest: read.drive.largest,
    };
  },
};

export const regenLimit = driveStep({
  id: 'regen-limit',
  title: 'Full battery',
  why: 'A full or cold battery takes nothing: the friction brakes must fill in what the motor no longer gives, and nobody but a log of a descent shows whether they do.',
  minutes: 2,
  characteristics: ['unfilled-torque'],
  needs: [...closureChannels, 'battery_charge'],
  uses: ['pedal_travel'],
  analyse: (trace, context) => answer(question, trace, context),
  limits: (analysis, { unit }) => [
    shareOfLargest('unfilled-torque', analysis, unit.unfilledMost, 'unfilledMaxPercent'),
  ],
});
