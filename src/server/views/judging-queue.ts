/** How far judging in the background has come. */
export interface JudgingAnew {
  readonly done: number;
  readonly of: number;
}

interface Queue {
  /** By id: those that wait or are being judged, with their numbers. */
  readonly waiting: Map<string, number>;
  /** Those that are done since the queue was last empty. */
  done: number;
  working: boolean;
  /** What has been tried in this process, by job and inputs: where nothing came of it, trying again would not end. */
  readonly tried: Set<string>;
}

// One queue for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalJudging?: Queue };

export const judgingQueue = (): Queue =>
  (shared.hardPedalJudging ??= { waiting: new Map(), done: 0, working: false, tried: new Set() });

/** Null while nothing is judged anew. */
export function judgingAnew(): JudgingAnew | null {
  const { waiting, done } = judgingQueue();
  return waiting.size > 0 ? { done, of: done + waiting.size } : null;
}
