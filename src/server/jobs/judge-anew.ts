import type { Job } from '@/data/jobs';
import { evaluateJob } from './evaluate-job';

/** How far judging in the background has come. */
export interface JudgingAnew {
  readonly done: number;
  readonly of: number;
}

interface Queue {
  /** By id: those that wait or are being judged, and those that are done since the queue was last empty. */
  readonly waiting: Map<string, Job>;
  done: number;
  working: boolean;
  /** What has been tried in this process, by job and inputs: where nothing came of it, trying again would not end. */
  readonly tried: Set<string>;
}

// One queue for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalJudging?: Queue };
const queue = (): Queue =>
  (shared.hardPedalJudging ??= { waiting: new Map(), done: 0, working: false, tried: new Set() });

/**
 * Has a job judged by today's method in the background, one after another; what comes out otherwise is put on record by that. False where
 * these inputs have been judged in vain before: a run that cannot be read, a disk that takes nothing.
 */
export function judgeAnew(job: Job, inputs: string): boolean {
  const all = queue();
  if (all.waiting.has(job.id)) return true;
  if (all.tried.has(`${job.id} ${inputs}`)) return false;
  all.tried.add(`${job.id} ${inputs}`);
  all.waiting.set(job.id, job);
  if (!all.working) void work(all);
  return true;
}

async function work(all: Queue): Promise<void> {
  all.working = true;
  for (let next = first(all); next; next = first(all)) {
    const { id, number } = next;
    await evaluateJob(next).catch((error: unknown) => console.error(`job ${number}`, error));
    all.waiting.delete(id);
    all.done++;
  }
  all.working = false;
  all.done = 0;
}

const first = ({ waiting }: Queue): Job | undefined => waiting.values().next().value;

/** Null while nothing is judged anew. */
export function judgingAnew(): JudgingAnew | null {
  const { waiting, done } = queue();
  return waiting.size > 0 ? { done, of: done + waiting.size } : null;
}
