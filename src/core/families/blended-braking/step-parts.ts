import { columnOf, type Trace } from '../../traces/trace';
import type { CharacteristicId } from '../../quantities/characteristics';
import { notByHand } from '../../procedure/not-by-hand';
import { driveEntry } from './drive-entry';
import { errorCurve } from './error-by-speed';
import type { Measured } from './read-log';
import { driveTimeline } from './timeline';

/** What one question about a drive brings; the rest is alike for all of them. */
export interface DriveStep extends Pick<Measured, 'id' | 'title' | 'why' | 'minutes' | 'analyse' | 'limits'> {
  readonly characteristics: readonly CharacteristicId[];
  readonly needs: readonly string[];
  /** Sets of channels of which one is enough, where no channel is needed by all that it answers. */
  readonly anyOf?: readonly (readonly string[])[];
  readonly uses: readonly string[];
}

/** Rows without which a log is no drive. */
const leastRows = 40;

/** A step that asks something of the log of a drive. */
export function driveStep({ needs, uses, anyOf, ...step }: DriveStep): Measured {
  return {
    ...step,
    kind: 'measured',
    cautions: ['road-test'],
    optional: false,
    feeds: {
      log: { needs, uses, leastRows, ownSensors: true, ...(anyOf ? { anyOf } : {}) },
      dials: notByHand('many-signals', driveEntry(step.characteristics, step.limits)),
    },
    pictures: [driveTimeline, errorCurve],
  };
}

/** A question that a log may not be able to answer. */
export interface Lacking {
  readonly title: string;
  readonly reads: readonly string[];
  /** Channels that it lacks; none where it has what it takes. */
  readonly lacks: (trace: Trace) => readonly string[];
}

/** What a step asks of a log, as a question that may not be answered. */
export function lackingOf({ title, feeds: { log } }: Measured): Lacking {
  const { needs, uses, anyOf = [] } = log;
  return {
    title,
    reads: [...needs, ...uses],
    lacks: (trace) => {
      const missing = (channels: readonly string[]) => channels.filter((channel) => !columnOf(trace, channel));
      const short = missing(needs);
      if (short.length > 0 || anyOf.length === 0) return short;
      const ways = anyOf.map(missing);
      return ways.some((way) => way.length === 0) ? [] : ways.toSorted((a, b) => a.length - b.length)[0];
    },
  };
}
