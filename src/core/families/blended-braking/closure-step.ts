import { absent } from '../../procedure/analysis-result';
import { evidence, noEvidence } from '../../procedure/evidence';
import { answer, joinAnswers, type Question } from '../../procedure/question';
import { expandedUncertainty, type Estimate } from '../../instruments/uncertainty';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { closureChannels } from './drive';
import { brakedStretches, frictionGain, stretchesNeeded, type BrakedStretch } from './friction-gain';
import { asMeasured, closedLog, isUnread, type ClosedLog, type Context } from './read-log';
import { shareOfLargest } from './shares';
import { driveStep } from './step-parts';

/** No lining gives so much more than its pressures say. */
const mostGain = 1.4;

/** A gain that is known no better tells nothing of linings. */
const tellsNothing = 0.5;

/** Why what a fit comes to is no gain; null where it may be one. */
function unfitGain(gain: Estimate): AnalysisProblem | null {
  const expanded = expandedUncertainty(gain);
  if (gain.value - expanded > mostGain) return { code: 'gives-too-much', gain: gain.value };
  return expanded > tellsNothing ? { code: 'friction-too-little', expanded } : null;
}

const torque: Question<Context, ClosedLog, ClosedLog> = {
  characteristics: ['closure-bias', 'closure-rms', 'closure-worst'],
  happened: closedLog,
  shows: (read) => evidence(read, read.notes, read.doubts),
  comesTo: ({ closure, drive }) => ({
    characteristics: [
      asMeasured('closure-bias', closure.bias),
      asMeasured('closure-rms', closure.rms),
      asMeasured('closure-worst', closure.worst.estimate),
    ],
    events: [{ id: 'worst', time: closure.worst.at }],
    notes: [
      { code: 'answer-delayed', seconds: closure.delay },
      { code: 'largest-request', torque: drive.largest },
    ],
    largestRequest: drive.largest,
  }),
};

interface Stops {
  readonly read: ClosedLog;
  readonly stretches: readonly BrakedStretch[];
}

const friction: Question<Context, Stops, Stops> = {
  characteristics: ['friction-gain'],
  happened: (trace, context) => {
    const read = closedLog(trace, context);
    if (isUnread(read)) return read;
    if (!read.speed) return noEvidence({ code: 'channel-missing', channel: 'vehicle_speed' });
    return { read, stretches: brakedStretches(context.unit, read.drive, read.speed) };
  },
  shows: (stops) =>
    stops.stretches.length >= stretchesNeeded
      ? evidence(stops)
      : noEvidence({ code: 'too-few-stops', found: stops.stretches.length, needed: stretchesNeeded }),
  comesTo: ({ read, stretches }) => {
    const gain = frictionGain(stretches, read.doubt);
    if (!gain) return { characteristics: [absent('friction-gain', { code: 'stops-alike' })], events: [], notes: [] };
    const unfit = unfitGain(gain);
    return {
      characteristics: [unfit ? absent('friction-gain', unfit) : asMeasured('friction-gain', gain)],
      events: [],
      notes: [],
    };
  },
};

export const closure = driveStep({
  id: 'closure',
  title: 'Does the torque close',
  why: 'What the driver asks for must come from motor and friction together. What is missing, or too much, is felt; glazed linings show only in how fast the vehicle slows.',
  minutes: 3,
  characteristics: ['closure-bias', 'closure-rms', 'closure-worst', 'friction-gain'],
  needs: closureChannels,
  uses: ['vehicle_speed', 'pedal_travel'],
  analyse: (trace, context) => joinAnswers([answer(torque, trace, context), answer(friction, trace, context)]),
  limits: (analysis, { unit }) => [
    shareOfLargest('closure-bias', analysis, unit.closureBiasMost, 'closureBiasMaxPercent', 'both-ways'),
    shareOfLargest('closure-rms', analysis, unit.closureRmsMost, 'closureRmsMaxPercent'),
    shareOfLargest('closure-worst', analysis, unit.closureWorstMost, 'closureWorstMaxPercent'),
    {
      characteristic: 'friction-gain',
      low: unit.frictionGainLeast,
      high: null,
      expected: 1,
      standard: 0,
      source: { kind: 'sheet', field: 'frictionGainMin' },
    },
  ],
});
