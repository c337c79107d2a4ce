import { Worker } from 'node:worker_threads';
import { packFrame } from '@/core/traces/frame';
import type { appendChunk } from '@/data/runs';
import type { FromWriter, ToWriter } from './chunk-writer';
import { threadScript } from './thread-script';

/**
 * Writes chunks on a thread that does nothing else: a disk takes its time, and a recorder must not be late for it. What cannot be written
 * rejects as it would here.
 */
export function writeOnThread(): typeof appendChunk {
  const asked = new Map<number, { resolve(): void; reject(error: Error): void }>();
  let asks = 0;
  let worker: Worker | null = null;
  const begin = (): Worker => {
    const begun = new Worker(threadScript('chunk-writer')!, { env: { ...process.env } });
    begun.on('message', ({ ask, failed }: FromWriter) => {
      const waiting = asked.get(ask);
      asked.delete(ask);
      if (failed) waiting?.reject(Object.assign(new Error(failed.message), { code: failed.code }));
      else waiting?.resolve();
    });
    begun.on('error', (error: unknown) => console.error('the thread that writes has ended', error));
    begun.on('exit', () => {
      worker = null;
      for (const each of asked.values()) each.reject(new Error('the thread that writes has ended'));
      asked.clear();
    });
    return begun;
  };
  return (runId, sequence, chunk, progress) =>
    new Promise<void>((resolve, reject) => {
      worker ??= begin();
      const ask = ++asks;
      asked.set(ask, { resolve, reject });
      const frame = packFrame(chunk);
      const message: ToWriter = { ask, runId, chunk: { sequence, samples: chunk.time.length, frame }, progress };
      worker.postMessage(message, [frame.buffer]);
    });
}
