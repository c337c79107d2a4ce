import { demoShop } from './demo-shop';
import { dataFolder, database } from '@/data/database';
import { FolderTaken, takeFolder } from '@/data/one-server';
import { markEntries, Unusable } from '@/data/unusable';

try {
  await takeFolder();
  console.log((await demoShop()) ? 'The demo shop is filled.' : 'The demo shop is there already.');
  await markEntries(await database(), dataFolder());
  process.exit(0);
} catch (error) {
  if (!(error instanceof FolderTaken || error instanceof Unusable)) throw error;
  console.error(error.message);
  process.exit(1);
}
