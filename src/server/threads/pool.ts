import { existsSync } from 'node:fs';
import path from 'node:path';
import workerpool, { type Pool, type Promise as WorkerPromise } from 'workerpool';
import { WorkCancelled } from '../http/work-cancelled';
import type { Tasks } from './tasks';

/** Whether a work may take its time: a long one never stands in the way of a short one, for which somebody waits at a screen. */
export type Slot = 'short' | 'long';

// One pool of each for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalPools?: Partial<Record<Slot, Pool>> };

const threadsOf: Readonly<Record<Slot, number>> = { short: 2, long: 1 };

/** How far a thread lets others go first on a busy machine, as the system counts it: not at all (0) to 19. */
const yields: Readonly<Record<Slot, number>> = { short: 5, long: 15 };

/** Tasks that read a log as long as it is. */
const longTasks: ReadonlySet<keyof Tasks> = new Set(['questioned', 'timeline', 'standInLog']);

/** The thread as the build bundled it; where it did not, its source, which cannot be older than what it belongs to. */
function script(): string | null {
  const bundled = path.join(process.cwd(), 'dist', 'threads-worker.mjs');
  if (process.env.NODE_ENV === 'production' && existsSync(bundled)) return bundled;
  const source = path.join(process.cwd(), 'src', 'server', 'threads', 'worker.mjs');
  return existsSync(source) ? source : null;
}

/** Work that nobody waits for any more may come to its end by itself for so long, ms: a thread that is ended takes longer to start anew. */
const patience = 3000;

/** Switched off by tests of what lies around it; and where no script is beside the server the same work is done on its thread. */
const threadScript = () => (process.env.HARD_PEDAL_THREADS === '0' ? null : script());

function pool(slot: Slot, file: string): Pool {
  const pools = (shared.hardPedalPools ??= {});
  return (pools[slot] ??= workerpool.pool(file, {
    workerType: 'thread',
    maxWorkers: threadsOf[slot],
    workerThreadOpts: { env: { ...process.env, HARD_PEDAL_YIELDS: String(yields[slot]) } },
  }));
}

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
 * ended; where the work itself fails, with its error. `slot` says whether it may take its time, where its name does not.
 */
export async function heavy<Name extends keyof Tasks>(
  name: Name,
  wanted: Parameters<Tasks[Name]>[0],
  signal?: AbortSignal,
  slot: Slot = longTasks.has(name) ? 'long' : 'short',
): Promise<Awaited<ReturnType<Tasks[Name]>>> {
  type Done = Awaited<ReturnType<Tasks[Name]>>;
  if (signal?.aborted) throw new WorkCancelled();
  const file = threadScript();
  if (file === null) {
    const { tasks } = await import('./tasks');
    return (await (tasks[name] as (given: typeof wanted) => unknown)(wanted)) as Done;
  }
  const work = pool(slot, file).exec(name, [wanted]) as WorkerPromise<Done>;
  return signal ? unlessAborted(work, signal) : work;
}

/** Starts a thread before it is wanted: it takes a while to load. */
export function warmThreads(): void {
  const file = threadScript();
  if (file === null) return;
  pool('short', file)
    .exec('ready', [])
    .catch((error: unknown) => console.error(error));
}

/** Ends all threads; for tests and orderly ends. */
export async function endThreads(): Promise<void> {
  const ending = Object.values(shared.hardPedalPools ?? {});
  delete shared.hardPedalPools;
  await Promise.all(ending.map((each) => each.terminate(true)));
}
