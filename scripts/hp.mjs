/* The command line as it was bundled last, bundled anew where a source is younger. */
import { readdirSync, statSync } from 'node:fs';
import path from 'node:path';

const bundle = path.join('dist', 'hp.mjs');
const ageOf = (file) => statSync(file, { throwIfNoEntry: false })?.mtimeMs ?? 0;

function youngest(folder) {
  let age = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const file = path.join(folder, entry.name);
    age = Math.max(age, entry.isDirectory() ? youngest(file) : ageOf(file));
  }
  return age;
}

if (ageOf(bundle) < Math.max(...['src/core', 'src/cli', 'src/server/context'].map(youngest)))
  await import('./bundle.mjs');
await import('../dist/hp.mjs');
