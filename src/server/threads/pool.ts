import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import workerpool, { type Pool, type Promise as WorkerPromise } from 'workerpool';
import type { Tasks } from './tasks';

// One pool for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalPool?: Pool };

/** The worker is run from its source: nothing built can be older than what it belongs to. */
const script = path.join(process.cwd(), 'src', 'server', 'threads', 'worker.mjs');

/** One core is left to the recorder. */
const mostThreads = Math.max(1, availableParallelism() - 1);

/** Work that nobody waits for any more may come to its end by itself for so long, ms: a thread that is ended takes longer to start anew. */
const patience = 3000;

/** Switched off by tests of what lies around it; and where the sources are not beside the server the same work is done on its thread. */
const withThreads = () => process.env.HARD_PEDAL_THREADS !== '0' && existsSync(script);

function pool(): Pool {
  return (shared.hardPedalPool ??= workerpool.pool(script, {
    workerType: 'thread',
    maxWorkers: mostThreads,
    workerThreadOpts: { env: { ...process.env } },
  }));
}

/** Nobody waits for this work any more. */
export class WorkCancelled extends Error {}

/** Rejects as soon as `signal` goes off, and ends the work if it does not end by itself. */
function unlessAborted<T>(work: WorkerPromise<T>, signal: AbortSignal): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    const abort = () => {
      setTimeout(() => void work.cancel(), patience).unref();
      reject(new WorkCancelled());
    };
    signal.addEventListener('abort', abort, { once: true });
    work.then(
      (done) => {
        signal.removeEventListener('abort', abort);
        resolve(done);
        return done;
      },
      (error: Error) => {
        signal.removeEventListener('abort', abort);
        reject(error);
      },
    );
  });
}

/**
 * Does a heavy work on a thread of its own. Where `signal` is given and goes off, the promise rejects with `WorkCancelled` and the work is
 * ended; where the work itself fails, with its error.
 */
export async function heavy<Name extends keyof Tasks>(
  name: Name,
  wanted: Parameters<Tasks[Name]>[0],
  signal?: AbortSignal,
): Promise<Awaited<ReturnType<Tasks[Name]>>> {
  type Done = Awaited<ReturnType<Tasks[Name]>>;
  if (signal?.aborted) throw new WorkCancelled();
  if (!withThreads()) {
    const { tasks } = await import('./tasks');
    return (await (tasks[name] as (given: typeof wanted) => unknown)(wanted)) as Done;
  }
  const work = pool().exec(name, [wanted]) as WorkerPromise<Done>;
  return signal ? unlessAborted(work, signal) : work;
}

/** Starts a thread before it is wanted: it takes a second or two to load. */
export function warmThreads(): void {
  if (withThreads())
    pool()
      .exec('ready', [])
      .catch((error: unknown) => console.error(error));
}

/** Ends all threads; for tests and orderly ends. */
export async function endThreads(): Promise<void> {
  const ending = shared.hardPedalPool;
  delete shared.hardPedalPool;
  await ending?.terminate(true);
}
