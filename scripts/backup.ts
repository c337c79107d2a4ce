import path from 'node:path';
import { backUp, restore } from '@/data/backup';
import { dataFolder } from '@/data/database';
import { FolderTaken } from '@/data/one-server';
import { Unusable } from '@/data/unusable';

/** `npm run backup [-- file]` copies the shop's book, also beside a running server; `npm run restore -- file` puts a copy back. */
const [what, file] = process.argv.slice(2);
const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;
const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '');

try {
  if (what === 'restore') {
    if (file === undefined) throw new Unusable('Say which copy is to be put back: npm run restore -- copy.sqlite');
    const { jobs, before } = await restore(dataFolder(), file, stamp);
    console.log(`The book of ${file} is back: ${jobs} jobs.`);
    if (before !== null) console.log(`What was there before it lies in ${before}.`);
  } else {
    const to = file ?? path.join(dataFolder(), 'copies', `hard-pedal-${stamp}.sqlite`);
    const copy = await backUp(dataFolder(), to);
    console.log(`Copied to ${copy.file}: ${copy.jobs} jobs, ${megabytes(copy.size)}. Keep a copy on another machine.`);
  }
  process.exit(0);
} catch (error) {
  if (!(error instanceof FolderTaken || error instanceof Unusable)) throw error;
  console.error(error.message);
  process.exit(1);
}
