import { availableParallelism } from 'node:os';
import path from 'node:path';
import workerpool, { type Pool } from 'workerpool';
import type { Tasks } from './tasks';

// One pool for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalPool?: Pool };

/** The worker is run from its source: nothing built can be older than what it belongs to. */
const script = path.join('src', 'server', 'work', 'worker.mjs');

/** One core is left to the recorder. */
const mostThreads = Math.max(1, availableParallelism() - 1);

function pool(): Pool {
  return (shared.hardPedalPool ??= workerpool.pool(path.join(process.cwd(), script), {
    workerType: 'thread',
    maxWorkers: mostThreads,
    workerThreadOpts: { env: { ...process.env } },
  }));
}

/** Nobody waits for this work any more. */
export class WorkCancelled extends Error {}

/**
 * Does a heavy work on a thread of its own. Where `signal` is given and goes off, the work is ended and the promise rejects with
 * `WorkCancelled`; where the work itself fails, with its error.
 */
export async function heavy<Name extends keyof Tasks>(
  name: Name,
  wanted: Parameters<Tasks[Name]>[0],
  signal?: AbortSignal,
): Promise<Awaited<ReturnType<Tasks[Name]>>> {
  // Where threads are switched off (tests of what lies around it) the same work is done here.
  if (process.env.HARD_PEDAL_THREADS === '0') {
    const { tasks } = await import('./tasks');
    return (await (tasks[name] as (given: typeof wanted) => unknown)(wanted)) as Awaited<ReturnType<Tasks[Name]>>;
  }
  if (signal?.aborted) throw new WorkCancelled();
  const work = pool().exec(name, [wanted]);
  const end = () => void work.cancel();
  signal?.addEventListener('abort', end, { once: true });
  try {
    return (await work) as Awaited<ReturnType<Tasks[Name]>>;
  } catch (error) {
    if (signal?.aborted) throw new WorkCancelled();
    throw error;
  } finally {
    signal?.removeEventListener('abort', end);
  }
}

/** Starts a thread before it is wanted: it takes a second or two to load. */
export function warmThreads(): void {
  if (process.env.HARD_PEDAL_THREADS !== '0')
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
