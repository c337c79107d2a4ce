import { FolderTaken, takeFolder } from '@/data/one-server';
import { bringBackAside } from '@/data/runs';
import { warmThreads } from './threads/pool';

/** Threads start once the first pages have been served: both want every core, ms. */
const threadsAfter = 3000;

/** Takes the data folder for this server alone, and puts right what an end without warning has left. */
export async function start(): Promise<void> {
  try {
    await takeFolder();
  } catch (error) {
    if (!(error instanceof FolderTaken)) throw error;
    console.error(error.message);
    process.exit(1);
  }
  await bringBackAside().catch((error: unknown) => console.error(error));
  setTimeout(warmThreads, threadsAfter).unref();
}
