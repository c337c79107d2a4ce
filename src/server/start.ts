import { database } from '@/data/database';
import { pruneAnalyses } from '@/data/kept-results';
import { FolderTaken, takeFolder } from '@/data/one-server';
import { bringBackAside } from '@/data/runs';
import { Unusable } from '@/data/unusable';
import { refuseEverything } from './http/refusal';

/** What is not wanted by the first page waits until that has been served: both want every core, ms. */
const restAfter = 3000;
/** How often it is looked whether who started the server is still there, ms. */
const lookEvery = 1000;

/** Takes the data folder for this server alone, and puts right what an end without warning has left. */
export async function start(): Promise<void> {
  endWithLauncher();
  try {
    await takeFolder();
    await database();
  } catch (error) {
    if (error instanceof FolderTaken) {
      console.error(error.message);
      process.exit(1);
    }
    if (!(error instanceof Unusable)) throw error;
    console.error(error.message);
    // The screens say so too: somebody may stand at one, and not at the terminal.
    return refuseEverything(error.message);
  }
  await bringBackAside().catch((error: unknown) => console.error(error));
  setTimeout(() => void rest().catch((error: unknown) => console.error(error)), restAfter).unref();
}

async function rest(): Promise<void> {
  const { warmThreads } = await import('./threads/pool');
  warmThreads();
  await pruneAnalyses();
  const { reviewStanding } = await import('./desk/review-standing');
  await reviewStanding();
}

/** A server whose launcher has gone would go on by itself, and hold the address: it ends with it. */
function endWithLauncher(): void {
  if (process.env.HARD_PEDAL_LAUNCHED !== '1') return;
  const launcher = process.ppid;
  setInterval(() => {
    if (process.ppid !== launcher) process.exit(0);
  }, lookEvery).unref();
}
