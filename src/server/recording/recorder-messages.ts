import type { MessagePort } from 'node:worker_threads';
import type { RecordingNow, RunCommand } from './recorder-host';

/** What the server asks of the thread that records; `ask` numbers what is answered. */
export type ToRecorder =
  | { readonly kind: 'start' | 'stop' | 'abandon'; readonly ask: number; readonly runId: string }
  | { readonly kind: 'command'; readonly ask: number; readonly runId: string; readonly command: RunCommand }
  | { readonly kind: 'follow'; readonly runId: string; readonly port: MessagePort };

/** What it says. */
export type FromRecorder =
  | { readonly kind: 'answer'; readonly ask: number; readonly result: unknown }
  | {
      readonly kind: 'failed';
      readonly ask: number;
      readonly message: string;
      readonly code: unknown;
      readonly status: unknown;
    }
  | { readonly kind: 'ended'; readonly runId: string }
  | { readonly kind: 'now'; readonly recording: readonly RecordingNow[] };
