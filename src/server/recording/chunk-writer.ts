import { parentPort } from 'node:worker_threads';
import { appendFrame, type PackedChunk } from '@/data/runs';

/** A chunk to be written; `ask` numbers what is answered. */
export interface ToWriter {
  readonly ask: number;
  readonly runId: string;
  readonly chunk: PackedChunk;
  readonly progress: unknown;
}

/** That it was written, or why not. */
export interface FromWriter {
  readonly ask: number;
  readonly failed?: { readonly message: string; readonly code: unknown };
}

/* The thread that writes what is recorded, on a connection of its own. */

parentPort?.on('message', ({ ask, runId, chunk, progress }: ToWriter) => {
  appendFrame(runId, chunk, progress).then(
    () => parentPort?.postMessage({ ask } satisfies FromWriter),
    (error: Error & { code?: unknown }) =>
      parentPort?.postMessage({ ask, failed: { message: error.message, code: error.code } } satisfies FromWriter),
  );
});
