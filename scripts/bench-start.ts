import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { demoFolder, startServer } from './bench-server';

/** An application of the same framework that shows one word, made anew at each request as a floor is. */
const empty: Readonly<Record<string, string>> = {
  'package.json': '{ "name": "empty", "private": true, "type": "module" }',
  'next.config.mjs': `export default { turbopack: { root: '/' }, experimental: { preloadEntriesOnStart: false } };`,
  'app/layout.js':
    'export default function Layout({ children }) { return <html lang="en"><body>{children}</body></html>; }',
  'app/page.js': `export const dynamic = 'force-dynamic';\nexport default function Page() { return <p>Nothing</p>; }`,
};

function buildEmpty(): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'empty-app-'));
  symlinkSync(path.join(process.cwd(), 'node_modules'), path.join(folder, 'node_modules'));
  for (const [file, text] of Object.entries(empty)) {
    mkdirSync(path.dirname(path.join(folder, file)), { recursive: true });
    writeFileSync(path.join(folder, file), text);
  }
  const next = path.join(process.cwd(), 'node_modules/next/dist/bin/next');
  const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1' };
  const built = spawnSync(process.execPath, [next, 'build'], { cwd: folder, env, encoding: 'utf8' });
  if (built.status !== 0) throw new Error(`the empty application was not built: ${built.stderr}${built.stdout}`);
  return folder;
}

/** ms from its start to its first page. */
async function startEmpty(folder: string, port: number): Promise<number> {
  const next = path.join(process.cwd(), 'node_modules/next/dist/bin/next');
  const from = performance.now();
  const server: ChildProcess = spawn(
    process.execPath,
    [next, 'start', '--hostname', '127.0.0.1', '--port', String(port)],
    { cwd: folder, stdio: 'ignore', env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' } },
  );
  for (;;) {
    const made = await fetch(`http://127.0.0.1:${port}/`).then(
      (page) => page.text(),
      () => null,
    );
    if (made?.includes('Nothing')) break;
    await wait(10);
  }
  const took = performance.now() - from;
  await new Promise((resolve) => {
    server.once('exit', resolve);
    server.kill();
  });
  return took;
}

const median = (values: readonly number[]) => [...values].sort((p, q) => p - q)[Math.floor(values.length / 2)];

/** Start to first Floor with the demo shop, beside an empty application in turn: `npm run bench -- start`. */
export async function startSpeed(line: (what: string, value: string, aim: string) => void): Promise<void> {
  const folder = buildEmpty();
  const shop = demoFolder();
  const pairs: { readonly own: number; readonly bare: number }[] = [];
  for (let i = 0; i < 7; i++) {
    const data = mkdtempSync(path.join(tmpdir(), 'measured-'));
    cpSync(shop, data, { recursive: true });
    const bare = await startEmpty(folder, 4396);
    const server = await startServer(data, 4397);
    await server.end();
    pairs.push({ own: server.toFirstFloor, bare });
    rmSync(data, { recursive: true, force: true });
  }
  for (const each of [shop, folder]) rmSync(each, { recursive: true, force: true });
  // The first of each finds nothing in the disk's memory.
  const warm = pairs.slice(1);
  line('start to first Floor, demo shop', `${median(warm.map(({ own }) => own)).toFixed(0)} ms`, '');
  line('start of an empty application to its first page', `${median(warm.map(({ bare }) => bare)).toFixed(0)} ms`, '');
  line('ratio, pair by pair', median(warm.map(({ own, bare }) => own / bare)).toFixed(2), 'aim 3 at most');
}
