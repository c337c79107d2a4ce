import { entryFromOnce } from '../../dials/from-readings';
import { byWatch, inVessel } from '../../dials/asked';
import { analyseSteadyReading } from '../../toolboxes/analysis/steady-reading';
import { random, readingComponents, systematic } from '../../instruments/uncertainty';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type NoEvidence } from '../../procedure/evidence';
import { answer, type Question } from '../../procedure/question';
import { around, atMost, limitFrom } from '../../procedure/limit';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import type { PedalValveUnit } from './geometry';
import { home, wait } from '../../procedure/guide-phase';
import { live, openOnce } from './step-parts';

type Measured = MeasuredStep<PedalValveUnit>;

/** Lamp and gauge follow what they show within about this, one sigma, s. */
const followsWithin = 0.1;

/** The neutral leak is read over so long, s. */
export const neutralLeakSeconds = 12;

export const neutralLeak: Measured = {
  id: 'neutral-leak',
  kind: 'measured',
  title: 'Neutral leak',
  why: 'With the pedal at rest a worn spool runs to the tank: read the flow at the tank port.',
  minutes: 3,
  cautions: ['fluid-jet', 'running-engine'],
  optional: false,
  characteristics: ['neutral-leak-flow'],
  ...openOnce,
  feeds: {
    log: {
      needs: ['flow'],
      uses: ['accumulator_pressure'],
      leastRows: 10,
      neededRate: 1,
    },
    live: {
      startsFrom: 'charged',
      guide: () => [wait({ code: 'rest', seconds: neutralLeakSeconds }, live, neutralLeakSeconds)],
      bands: ({ unit, workshopLimits }) => ({ flow: [0, workshopLimits.internalLeakFactor * unit.neutralLeak] }),
    },
    dials: entryFromOnce<PedalValveUnit>(
      ['neutral-leak-flow'],
      () => [
        inVessel('caught', 'Caught at the tank port', { hint: 'A vessel with marks, pedal at rest, store charged' }),
        byWatch('caught-in', 'Caught in', { plausible: [5, 3_600] }),
      ],
      ({ caught, 'caught-in': seconds }) => ({ 'neutral-leak-flow': caught / seconds }),
      { 'neutral-leak-flow': ['caught', '÷', 'caught-in'] },
    ),
  },
  analyse: (trace, context) =>
    analyseSteadyReading(trace, context, {
      id: 'neutral-leak-flow',
      channel: 'flow',
      seconds: Infinity,
      // Nothing runs to the tank where nothing is stored.
      atLeast: { channel: 'accumulator_pressure', mean: context.unit.regulatedMaximum },
    }),
  limits: (_analysis, { unit, workshopLimits }) => [
    atMost(
      'neutral-leak-flow',
      limitFrom(
        {
          field: 'neutralLeakMaxCm3PerMin',
          value:
            unit.spec.neutralLeakMaxCm3PerMin === undefined
              ? undefined
              : (unit.spec.neutralLeakMaxCm3PerMin * 1e-6) / 60,
        },
        { key: 'internalLeakFactor', value: workshopLimits.internalLeakFactor * unit.neutralLeak },
      ),
      { expected: unit.neutralLeak },
    ),
  ],
  pictures: [{ kind: 'over-time', channels: ['flow'] }],
};

/** A parking brake's lamp beside the pressure that lets it off: the sample at which it goes out, null where it never does. */
interface ParkingFound {
  readonly trace: Trace;
  readonly goesOut: number | null;
}

function findParking(trace: Trace): ParkingFound | NoEvidence {
  const pressure = columnOf(trace, 'parking_pressure');
  const lamp = columnOf(trace, 'parking_brake');
  if (!pressure || !lamp)
    return noEvidence({ code: 'channel-missing', channel: pressure ? 'parking_brake' : 'parking_pressure' });
  let at = 1;
  while (at < lamp.length && !(lamp[at] <= 0.5 && lamp[at - 1] > 0.5)) at++;
  return { trace, goesOut: at < lamp.length ? at : null };
}

const parkingQuestion: Question<StepContext<PedalValveUnit>, ParkingFound, { trace: Trace; at: number }> = {
  characteristics: ['parking-release-pressure'],
  happened: findParking,
  shows: ({ trace, goesOut }) =>
    goesOut === null ? noEvidence({ code: 'lamp-never-lit', down: 0 }) : evidence({ trace, at: goesOut }),
  comesTo: ({ trace, at }, context) => {
    const pressure = trace.columns.parking_pressure;
    const half = Math.max(1, Math.round(0.1 / sampleInterval(trace)));
    const [before, after] = [pressure[Math.max(0, at - half)], pressure[Math.min(pressure.length - 1, at + half)]];
    // What the pressure rises while lamp, gauge and eye follow.
    const late = (Math.abs(after - before) / (2 * half * sampleInterval(trace))) * followsWithin;
    const there = meanOf(pressure, at - half, at + half);
    const instrument = context.instruments.get('parking_pressure');
    return {
      characteristics: [
        measured('parking-release-pressure', there.mean, [
          random('noise', Math.max(there.deviation / Math.sqrt(there.count), 4e3)),
          systematic('timing', Math.hypot(late, (Math.abs(after - before) / (2 * half)) * 0.3)),
          ...(instrument ? readingComponents(instrument, there.mean, context.date) : []),
        ]),
      ],
      events: [{ id: 'switch-opens', time: trace.time[at] }],
      notes: [],
    };
  },
};

export const parkingRelease: Measured = {
  id: 'parking-release',
  kind: 'measured',
  title: 'Parking brake lets go',
  why: 'The parking brake is put on by springs and let off by pressure: raise it slowly and see when the brake is free.',
  minutes: 2,
  cautions: ['rigid-stands', 'fluid-jet'],
  optional: false,
  characteristics: ['parking-release-pressure'],
  ...openOnce,
  feeds: {
    log: {
      needs: ['parking_pressure', 'parking_brake'],
      uses: [],
      leastRows: 20,
      formerly: { parking_pressure: 'output_pressure', parking_brake: 'lamp_amber' },
    },
    live: {
      startsFrom: 'charged',
      guide: ({ unit }) => [
        wait({ code: 'rest', seconds: 1 }, {}, 1),
        {
          instruction: { code: 'raise-supply-slowly', channel: 'parking_pressure', level: unit.parkingRelease },
          controls: { actuate: 1 },
          lever: home,
          end: {
            kind: 'reading',
            channel: 'parking_pressure',
            side: 'above',
            level: unit.parkingRelease * 1.15,
            atMost: 120,
          },
        },
        wait({ code: 'rest', seconds: 2 }, {}, 2),
      ],
      bands: ({ unit }) => ({ parking_pressure: [unit.parkingRelease * 0.9, unit.parkingRelease * 1.1] }),
    },
  },
  analyse: (trace, context) => answer(parkingQuestion, trace, context),
  limits: (_analysis, { unit, workshopLimits }) => [
    around('parking-release-pressure', unit.parkingRelease, {
      value: workshopLimits.boostRatioTolerance,
      source: { kind: 'workshop', key: 'boostRatioTolerance' },
    }),
  ],
  pictures: [{ kind: 'over-time', channels: ['parking_pressure', 'parking_brake'] }],
};
