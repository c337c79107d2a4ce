import type { RecordingNow } from './recorder-host';

/** What is being recorded in this process, for those who only look. */
export interface RecordingState {
  isRecording(runId: string): boolean;
  now(runId: string): RecordingNow | undefined;
}

const nothing: RecordingState = { isRecording: () => false, now: () => undefined };

// One for the whole process, also across the bundler's copies of this module; it is there once something has been recorded.
const shared = globalThis as { hardPedalRecorders?: RecordingState };

export const recordingNow = (): RecordingState => shared.hardPedalRecorders ?? nothing;
