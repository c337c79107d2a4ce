import { loadJobRecord } from '@/data/job-record';
import type { Job } from '@/data/jobs';
import { evaluateJob } from '../judging/evaluate-job';
import { loadShop } from '../shop/shop-now';
import { judgingQueue } from './judging-queue';

/**
 * Has a job judged by today's method in the background, one after another; what comes out otherwise is put on record by that. False where
 * these inputs have been judged in vain before: a run that cannot be read, a disk that takes nothing.
 */
export function judgeAnew({ id, number }: Job, inputs: string): boolean {
  const all = judgingQueue();
  if (all.waiting.has(id)) return true;
  if (all.tried.has(`${id} ${inputs}`)) return false;
  all.tried.add(`${id} ${inputs}`);
  all.waiting.set(id, number);
  if (!all.working) void work(all);
  return true;
}

async function judge(id: string): Promise<void> {
  const [record, shop] = await Promise.all([loadJobRecord(id), loadShop()]);
  if (record) await evaluateJob(record, shop);
}

async function work(all: ReturnType<typeof judgingQueue>): Promise<void> {
  all.working = true;
  for (let next = first(all); next; next = first(all)) {
    const [id, number] = next;
    await judge(id).catch((error: unknown) => console.error(`job ${number}`, error));
    all.waiting.delete(id);
    all.done++;
  }
  all.working = false;
  all.done = 0;
}

const first = ({ waiting }: ReturnType<typeof judgingQueue>) => waiting.entries().next().value;
