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
}

// One queue for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalJudging?: Queue };
const queue = (): Queue => (shared.hardPedalJudging ??= { waiting: new Map(), done: 0, working: false });

/** Has a job judged by today's method in the background, one after another; what comes out otherwise is put on record by that. */
export function judgeAnew(job: Job): void {
  const all = queue();
  if (all.waiting.has(job.id)) return;
  all.waiting.set(job.id, job);
  if (!all.working) void work(all);
}

async function work(all: Queue): Promise<void> {
  all.working = true;
  for (let next = first(all); next; next = first(all)) {
    await evaluateJob(next).catch((error: unknown) => console.error(`job ${next?.number}`, error));
    all.waiting.delete(next.id);
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
