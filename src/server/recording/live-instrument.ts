import type { BenchControls } from '@/core/physics/bench-controls';
import type { RigSnapshot, StandInRig } from '@/core/rig/stand-in-rig';
import type { Trace } from '@/core/traces/trace';

/**
 * The door that every measuring device comes in by, the stand-in rig as well as a real bench.
 * `read` hands over what was sampled since the last call; a real device ignores `elapsed` and the controls
 * that it does not have.
 */
export interface LiveInstrument {
  readonly channels: readonly string[];
  /** Channel that the lever drives; null where nothing is pulled. */
  readonly leverChannel: string | null;
  /** Samples per second of the device's own clock. */
  readonly sampleRate: number;
  read(elapsed: number, controls: BenchControls, leverTo: number): Trace;
  /** State for resuming after the server was killed; null for a device that keeps its own. */
  snapshot(): RigSnapshot | null;
}

/** The stand-in rig behind the door. Whole samples only: the rest of an interval waits for the next call. */
export function standInInstrument(rig: StandInRig): LiveInstrument {
  let owed = 0;
  return {
    channels: rig.channels,
    leverChannel: rig.leverChannel,
    sampleRate: rig.sampleRate,
    read(elapsed, controls, leverTo) {
      owed += elapsed * rig.sampleRate;
      const samples = Math.floor(owed + 1e-9);
      owed -= samples;
      return rig.advance(samples, controls, leverTo);
    },
    snapshot: () => rig.snapshot(),
  };
}
