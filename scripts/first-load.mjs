/* What a browser loads for each page at its first visit: scripts, gzip, kB. Reads the last build. */
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';

const built = '.next';
const root = JSON.parse(readFileSync(path.join(built, 'build-manifest.json'), 'utf8')).rootMainFiles;
const sizes = new Map();

function sizeOf(file) {
  const clean = file.replace(/^\/?_next\//, '');
  if (!sizes.has(clean)) {
    const at = path.join(built, clean);
    sizes.set(clean, clean.endsWith('.js') && existsSync(at) ? gzipSync(readFileSync(at)).length : 0);
  }
  return sizes.get(clean);
}

/** First load of every page, kB of gzip, by its path. */
export function firstLoads() {
  const app = path.join(built, 'server', 'app');
  const pages = readdirSync(app, { recursive: true, encoding: 'utf8' }).filter((file) =>
    file.endsWith('page_client-reference-manifest.js'),
  );
  return new Map(
    pages.map((page) => {
      const text = readFileSync(path.join(app, page), 'utf8');
      const json = text.slice(text.indexOf('=', text.lastIndexOf('__RSC_MANIFEST[')) + 1).trim();
      const manifest = JSON.parse(json.replace(/;$/, ''));
      const files = new Set([...root, ...Object.values(manifest.entryJSFiles ?? {}).flat()]);
      const kilobytes = [...files].reduce((sum, file) => sum + sizeOf(file), 0) / 1000;
      return [page.replace(/\/?page_client-reference-manifest\.js$/, '') || '(root)', kilobytes];
    }),
  );
}

if (process.argv[1]?.endsWith('first-load.mjs'))
  for (const [page, kilobytes] of [...firstLoads()].sort((p, q) => q[1] - p[1]))
    console.log(`${kilobytes.toFixed(0).padStart(5)} kB  ${page}`);
