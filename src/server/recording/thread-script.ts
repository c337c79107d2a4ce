import { existsSync } from 'node:fs';
import path from 'node:path';

/** A thread of the recorder's as the build bundled it; where it did not, its source. Null where neither is there. */
export function threadScript(name: 'recorder-thread' | 'chunk-writer'): string | null {
  const bundled = path.join(process.cwd(), 'dist', `${name}.mjs`);
  // Only a build knows that its bundle is made of these very sources.
  if (process.env.NODE_ENV === 'production' && existsSync(bundled)) return bundled;
  const source = path.join(process.cwd(), 'src', 'server', 'recording', `${name}.mjs`);
  return existsSync(source) ? source : null;
}
