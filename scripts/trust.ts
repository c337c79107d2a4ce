import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { build } from 'esbuild';

/**
 * `npm run trust`: kills a process after each single write of every use case and looks at what is there then; with a number, every so
 * manieth point only. Prints how many points there were, and every one that left half of something.
 */
const every = Number(process.argv[2] ?? 1);
const folder = mkdtempSync(path.join(tmpdir(), 'trust-'));
const child = path.join(process.cwd(), 'dist', 'trust', 'child.mjs');
process.env.HARD_PEDAL_THREADS = '0';

await build({
  entryPoints: { child: 'scripts/trust/child.ts', state: 'scripts/trust/state.ts' },
  outdir: path.dirname(child),
  outExtension: { '.js': '.mjs' },
  bundle: true,
  splitting: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  packages: 'external',
  logLevel: 'error',
});

interface State {
  readonly state: string;
  readonly wrong: readonly string[];
}

/** Runs a script of the bundle in a process of its own on a folder; its last line of output. */
function inProcess(script: string, data: string, more: Record<string, string> = {}): Promise<string> {
  return new Promise((resolve) => {
    const env = { ...process.env, HARD_PEDAL_DATA: data, ...more };
    const started = spawn(process.execPath, [path.join(path.dirname(child), script)], {
      env,
      stdio: ['ignore', 'pipe', process.env.TRUST_LOUD ? 'inherit' : 'ignore'],
    });
    let out = '';
    started.stdout.on('data', (text) => (out += String(text)));
    started.on('close', () => resolve(out.trim().split('\n').at(-1) ?? ''));
  });
}

const stateOf = async (data: string): Promise<State> => JSON.parse(await inProcess('state.mjs', data)) as State;

// Once without a kill: what there is after each use case.
const clean = path.join(folder, 'clean');
mkdirSync(clean);
const steps = JSON.parse(await inProcess('state.mjs', clean, { TRUST_STEPS: '1' })) as {
  readonly title: string;
  readonly writes: number;
  readonly live: boolean;
  readonly state: string;
}[];
const total = steps.at(-1)?.writes ?? 0;
let points = 0;
const halves: string[] = [];
async function killAt(at: number): Promise<void> {
  const data = path.join(folder, `at-${at}`);
  mkdirSync(data);
  await inProcess('child.mjs', data, { TRUST_CHILD: '1', KILL_AT: String(at) });
  const { state, wrong } = await stateOf(data);
  const during = steps.findIndex(({ writes }) => writes >= at);
  const { title } = steps[during];
  points++;
  // What a rig has written by then is another each time: of it only what must never be is asked.
  const live = steps.slice(0, during + 1).some((step) => step.live);
  const allowed = [steps[during - 1]?.state, steps[during].state];
  if (!live && during > 0 && !allowed.includes(state)) halves.push(`write ${at}, in “${title}”: half of it is there`);
  for (const each of wrong) halves.push(`write ${at}, in “${title}”: ${each}`);
  rmSync(data, { recursive: true, force: true });
}

const wanted = Array.from({ length: Math.ceil(total / every) }, (_, i) => 1 + i * every);
/** Two at a time. */
const next = async (): Promise<void> => {
  for (let at = wanted.shift(); at !== undefined; at = wanted.shift()) await killAt(at);
};
await Promise.all([next(), next()]);
rmSync(folder, { recursive: true, force: true });
console.log(`${points} kills at ${total} writes of ${steps.length} use cases: ${halves.length} left something half`);
for (const each of halves) console.log(each);
process.exit(halves.length === 0 ? 0 : 1);
