import { measured } from '../../procedure/analysis-result';
import { noEvidence, type NoEvidence } from '../../procedure/evidence';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import { oncePerTrace } from '../../traces/once-per-trace';
import type { Samples } from '../../traces/own-samples';
import { meanInterval } from '../../traces/time-mean';
import type { Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Instrument } from '../../instruments/instrument';
import type { Estimate } from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { closureOf, type Closure } from './closure';
import { readDrive, samplesOf, type Drive } from './drive';
import { onClock, type Clocked } from './drive-clock';
import { bridged, speedDropouts, type SpeedDropout } from './drive-states';
import type { BlendedUnit } from './geometry';
import { panicEvents, panicRateLeast } from './panic';
import { sensorDoubtOf, type SensorDoubt } from './sensor-doubt';

export type Context = StepContext<BlendedUnit>;
export type Measured = MeasuredStep<BlendedUnit>;

/** Columns more slowly sampled than this tell nothing of torque that comes and goes in tenths of a second, Hz. */
const columnRateLeast = 10;
/** A pedal that is sampled a little more slowly than it must be is sampled fast enough: clocks are no better. */
const aboutFast = 0.97;
/** So much that was not recorded is worth a word, s. */
const worthSaying = 1;

/** Speed of a drive with its dropouts bridged. */
export interface DriveSpeed {
  readonly recorded: Samples;
  readonly samples: Samples;
  readonly dropouts: readonly SpeedDropout[];
}

/** What every question about the torque of a drive begins with. */
export interface ReadLog {
  readonly drive: Drive;
  readonly doubt: SensorDoubt;
  /** Null where the log has none. */
  readonly speed: Clocked | null;
  readonly travel: Samples | null;
  /** Times of the panics, s; null where the pedal is sampled too slowly to tell, or not at all. */
  readonly panics: readonly number[] | null;
  /** How the torque closes, panics left out; null where nothing but panics is in the log. */
  readonly closure: Closure | null;
  readonly notes: readonly AnalysisProblem[];
  /** What no pass can be said in spite of. */
  readonly doubts: readonly AnalysisProblem[];
}

/** Speed of a log, bridged; null where it has none. */
export const speedOf = oncePerTrace((trace: Trace): DriveSpeed | null => {
  const samples = samplesOf(trace, 'vehicle_speed');
  if (!samples) return null;
  const dropouts = speedDropouts(samples);
  return { recorded: samples, samples: bridged(samples, dropouts), dropouts };
});

const pedalRate = (travel: Samples) => 1 / meanInterval(travel);

function panicsIn(travel: Samples | null, unit: BlendedUnit): readonly number[] | null {
  if (!travel || pedalRate(travel) < aboutFast * panicRateLeast) return null;
  return panicEvents(travel, unit.panicRate);
}

const readOnce = oncePerTrace(
  (
    trace: Trace,
    unit: BlendedUnit,
    instruments: ReadonlyMap<string, Instrument>,
    date: string,
  ): ReadLog | NoEvidence => {
    const read = readDrive(trace, unit);
    switch (read.kind) {
      case 'missing':
        return noEvidence({ code: 'channel-missing', channel: read.channels[0] });
      case 'too-slow':
        return noEvidence({
          code: 'column-too-slow',
          channel: read.channel,
          rate: 1 / read.interval,
          needed: columnRateLeast,
        });
      case 'still':
        return noEvidence({ code: 'gauge-never-moved', channel: read.channel });
      case 'nobody-brakes':
        return noEvidence({ code: 'nobody-brakes' });
      case 'drive':
        break;
    }
    const { drive } = read;
    const doubt = sensorDoubtOf(unit, instruments, date);
    const travel = samplesOf(trace, 'pedal_travel');
    const panics = panicsIn(travel, unit);
    const speed = speedOf(trace);
    return {
      drive,
      doubt,
      travel,
      panics,
      speed: speed && onClock(speed.samples, drive.clock, 'straight'),
      closure: closureOf(unit, drive, doubt, panics ?? []),
      notes: notesOf(drive, doubt, travel, panics),
      doubts: drive.frictionUsed ? [] : [{ code: 'friction-never-used' }],
    };
  },
);

function notesOf(
  { turned, leftOut, clock }: Drive,
  doubt: SensorDoubt,
  travel: Samples | null,
  panics: readonly number[] | null,
): readonly AnalysisProblem[] {
  return [
    ...turned.map((channel): AnalysisProblem => ({ code: 'torque-turned', channel })),
    ...(leftOut > worthSaying
      ? [{ code: 'drive-left-out', seconds: leftOut, of: clock.count * clock.step } as const]
      : []),
    ...(travel && panics === null
      ? [{ code: 'panics-not-told', rate: pedalRate(travel), needed: panicRateLeast } as const]
      : []),
    ...(doubt.assumed.length > 0
      ? [{ code: 'vehicle-sensors-assumed', channels: [...doubt.assumed, 'regen_torque'] } as const]
      : []),
  ];
}

/** What a log says of the torque of a drive, or why it says nothing. */
export function readLog(trace: Trace, { unit, instruments, date }: Context): ReadLog | NoEvidence {
  return readOnce(trace, unit, instruments, date);
}

/** Whether a log could not be read at all. */
export const isUnread = (read: ReadLog | NoEvidence): read is NoEvidence => 'kind' in read;

/** A read log whose torque closes or not outside of panics. */
export type ClosedLog = ReadLog & { readonly closure: Closure };

/** The same, where there is any braking outside of panics. */
export function closedLog(trace: Trace, context: Context): ClosedLog | NoEvidence {
  const read = readLog(trace, context);
  if (isUnread(read)) return read;
  return read.closure ? (read as ClosedLog) : noEvidence({ code: 'nobody-brakes' });
}

/** An estimate as a measured characteristic. */
export const asMeasured = (id: CharacteristicId, { value, components }: Estimate) => measured(id, value, components);
