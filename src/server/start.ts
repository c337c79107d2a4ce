import { FolderTaken, takeFolder } from '@/data/one-server';
import { bringBackAside } from '@/data/runs';
import { floorView } from './jobs/job-view';
import { warmThreads } from './threads/pool';

/** Takes the data folder for this server alone, and evaluates the jobs of the day once, so that the first look does not wait for it. */
export async function start(): Promise<void> {
  try {
    await takeFolder();
  } catch (error) {
    if (!(error instanceof FolderTaken)) throw error;
    console.error(error.message);
    process.exit(1);
  }
  await bringBackAside().catch((error: unknown) => console.error(error));
  warmThreads();
  void floorView().catch(() => undefined);
}
