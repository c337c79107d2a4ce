import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { chromium, type Browser } from '@playwright/test';
import { kindNamed } from '@/core/families';
import { browserPath } from '../tests/support/browser';
import type { StepContext } from '@/core/procedure/step-context';
import { liveFeed, type MeasuredStep } from '@/core/procedure/step-definition';
import { readBenchLog, writeBenchLog } from '@/core/formats/bench-log';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { runByItself } from '@/core/rig/run-by-itself';
import { rigForStep } from '@/core/rig/run-step';
import { FrameReader, packFrame } from '@/core/traces/frame';
import { makeTrace, sliceTrace, type Trace } from '@/core/traces/trace';
import { bookSpeed } from './bench-book';
import { evaluateSpeed } from './bench-evaluate';
import { driveSpeed } from './bench-drive';
import { recorderSpeed } from './bench-recorder';
import { rankingSpeed } from './bench-ranking';
import { startSpeed } from './bench-start';

/* npm run bench: prints how fast things are on this machine; it asserts nothing. */

const kind = kindNamed('vacuum-remote');
const checked = checkKind(kind, 'bench', kind.sheet.example.spec, 'bench');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context: StepContext<unknown> = contextAt(checked.value, { altitudeM: 1420, benchVolumeCm3: 600 }, '2026-11-23');
const step = kind.steps.find((each) => each.id === 'boost-curve') as MeasuredStep<unknown>;

function line(what: string, value: string, aim: string): void {
  process.stdout.write(`${what.padEnd(58)} ${value.padStart(12)}   ${aim}\n`);
}

function seconds(work: () => void): number {
  const from = performance.now();
  work();
  return (performance.now() - from) / 1000;
}

function rigSpeed(): void {
  const setting = { faults: [], benchSeed: 1, runSeed: 1 };
  const run = () => runByItself(rigForStep(kind, step, context, setting), liveFeed(step).guide(context));
  run();
  let simulated = 0;
  const took = seconds(() => {
    for (let i = 0; i < 10; i++) simulated += run().time.at(-1) ?? 0;
  });
  line('stand-in rig, boost curve, one core', `${(simulated / took).toFixed(0)} ×`, 'real time; aim 1000 × or more');
}

/** One pull of an hour: 8 channels at 200 Hz. */
function hourLog(): Trace {
  const slow = liveFeed(step)
    .guide(context)
    .map((phase) => ({
      ...phase,
      lever: { ...phase.lever, seconds: phase.lever.seconds > 5 ? 1780 : phase.lever.seconds },
    }));
  const trace = runByItself(rigForStep(kind, step, context, { faults: [], benchSeed: 1, runSeed: 1 }), slow);
  const wave = (period: number) =>
    Float64Array.from(trace.time, (time) => Math.round(1000 * Math.sin(time / period)) / 10);
  return makeTrace(trace.time, {
    ...trace.columns,
    air_temperature: wave(900).map((v) => 284 + v / 100),
    rod_force: wave(60),
    rod_travel: wave(30).map((v) => v / 1e4),
  });
}

function analysis(): void {
  const trace = hourLog();
  const shape = `${trace.time.length.toLocaleString('en')} rows, ${Object.keys(trace.columns).length} channels`;
  step.analyse(trace, context);
  line(
    `analysis of an hour, without parsing (${shape})`,
    `${seconds(() => step.analyse(trace, context)).toFixed(2)} s`,
    'aim under 1 s',
  );
  const text = writeBenchLog(trace, {});
  const took = seconds(() => {
    const read = readBenchLog(text, 'hour.csv', {
      step: step.id,
      needs: step.feeds.log.needs,
      leastRows: step.feeds.log.leastRows,
    });
    if (!read.ok) throw new Error('the hour log was not read');
    step.analyse(read.value.trace, context);
  });
  line(`the same with parsing (${(text.length / 1e6).toFixed(0)} MB of CSV)`, `${took.toFixed(2)} s`, 'aim under 3 s');
}

/** Pictures a second and the longest task of the page while the rig pulls a boost curve in real time. */
async function whileRecording(browser: Browser, base: string): Promise<void> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  // The transpiler names functions by a helper that a page does not have.
  await page.addInitScript('globalThis.__name = (each) => each;');
  await page.goto(`${base}/jobs/job-tk-2207-118/bench/boost-curve`);
  await page.getByRole('button', { name: /Run it again/ }).click();
  await page.getByRole('button', { name: /Let the rig pull/ }).click();
  await wait(12_000);
  const seen = await page.evaluate(
    () =>
      new Promise<{ frames: number; longest: number; seconds: number }>((resolve) => {
        let frames = 0;
        let longest = 0;
        const from = performance.now();
        new PerformanceObserver((list) => {
          for (const entry of list.getEntries()) longest = Math.max(longest, entry.duration);
        }).observe({ entryTypes: ['longtask'] });
        const count = () => {
          frames++;
          if (performance.now() - from < 10_000) requestAnimationFrame(count);
          else resolve({ frames, longest, seconds: (performance.now() - from) / 1000 });
        };
        requestAnimationFrame(count);
      }),
  );
  line('Bench while recording 5 channels at 200 Hz', `${(seen.frames / seen.seconds).toFixed(0)} /s`, 'pictures');
  line('longest task of the page meanwhile', seen.longest > 0 ? `${seen.longest.toFixed(0)} ms` : 'under 50 ms', '');
  await page.close();
}

/** Samples in one part of a log that is sent. */
const partSamples = 12_000;

const post = async (address: string, body: object): Promise<{ id: string }> => {
  const response = await fetch(address, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${address}: ${response.status} ${await response.text()}`);
  return (await response.json()) as { id: string };
};

/** Sends an hour's log into a job, and has it judged and drawn. */
async function judgeHour(base: string, job: string, trace: Trace): Promise<void> {
  const channels = Object.keys(trace.columns);
  const { id } = await post(`${base}/api/jobs/${job}/imports`, {
    step: 'boost-curve',
    person: 'Noor Halabi',
    file: { name: 'hour.csv', leftOut: [] },
    fingerprint: 'hour',
    mapping: [],
    confirmed: channels,
  });
  for (let from = 0, sequence = 0; from < trace.time.length; from += partSamples, sequence++) {
    const body = packFrame(sliceTrace(trace, from, Math.min(trace.time.length, from + partSamples)));
    await fetch(`${base}/api/runs/${id}/parts?sequence=${sequence}`, { method: 'PUT', body });
  }
  await post(`${base}/api/runs/${id}/parts`, {});
  for (const address of [`/api/runs/${id}/result`, `/jobs/${job}`, `/api/runs/${id}/stream`])
    await (await fetch(base + address)).arrayBuffer();
}

/** A recorder while an hour's log is brought, judged and drawn beside it: its longest silence, and samples lost. */
async function besideRecorder(base: string): Promise<void> {
  const { id } = await post(`${base}/api/jobs/job-tk-2207-118/runs`, { step: 'boost-curve', person: 'Noor Halabi' });
  const stream = await fetch(`${base}/api/runs/${id}/stream`);
  const reader = stream.body!.getReader();
  const frames = new FrameReader();
  let [last, longest, samples, gap, before, over] = [performance.now(), 0, 0, 0, Number.NaN, false];
  const listening = (async () => {
    for (;;) {
      const { value, done } = await reader.read();
      if (done || over) return;
      const now = performance.now();
      if (samples > 0) longest = Math.max(longest, now - last);
      last = now;
      for (const { time } of (frames.push(value) ?? []).map((frame) => frame.samples)) {
        samples += time.length;
        for (const at of time) {
          if (at - before > gap) gap = at - before;
          before = at;
        }
      }
    }
  })();
  await wait(2000);
  longest = 0;
  await wait(5000);
  const alone = longest;
  longest = 0;
  const took = performance.now();
  // In a process of its own, so that what is measured is the server's and not this one's.
  const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/bench.ts', base, 'judge-hour'], {
    stdio: 'inherit',
  });
  await new Promise((resolve) => child.on('exit', resolve));
  const seconds = (performance.now() - took) / 1000;
  over = true;
  await post(`${base}/api/runs/${id}`, { action: 'discard', person: 'Noor Halabi' });
  await reader.cancel().catch(() => undefined);
  await listening.catch(() => undefined);
  line('longest wait for samples of a run, nothing beside it', `${alone.toFixed(0)} ms`, 'sent every 33 ms');
  line(
    `the same while an hour’s log is brought and judged (${seconds.toFixed(1)} s)`,
    `${longest.toFixed(0)} ms`,
    'aim under 83 ms',
  );
  line('longest step between its samples', `${(gap * 1000).toFixed(1)} ms`, 'at 200 Hz: 5 ms, none lost');
}

async function firstPaint(): Promise<void> {
  const port = 4392;
  const env = {
    ...process.env,
    HARD_PEDAL_DATA: mkdtempSync(path.join(tmpdir(), 'bench-')),
    NEXT_TELEMETRY_DISABLED: '1',
  };
  const until = (child: ChildProcess) => new Promise((resolve) => child.on('exit', resolve));
  await until(spawn('sh', ['scripts/build.sh'], { env, stdio: 'ignore' }));
  await until(spawn(process.execPath, ['--import', 'tsx', 'scripts/seed-demo-shop.ts'], { env, stdio: 'ignore' }));
  const server = spawn(process.execPath, ['scripts/serve.mjs'], {
    env: { ...env, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  const base = `http://127.0.0.1:${port}`;
  await new Promise((resolve) => server.stdout.once('data', resolve));
  const asked = performance.now();
  const floor = await (await fetch(base)).text();
  const took = (performance.now() - asked).toFixed(0);
  line(
    'first Floor once the server says that it is up',
    `${took} ms`,
    `${(floor.length / 1000).toFixed(0)} kB; aim 300 ms`,
  );
  const browser = await chromium.launch({
    executablePath: browserPath,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
  const places = [
    ['Floor', '/'],
    ['Job', '/jobs/job-tk-2207-118'],
    ['Bench', '/jobs/job-tk-2207-118/bench/boost-curve'],
  ] as const;
  for (const round of ['first visit', 'again'])
    for (const [title, address] of places) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await page.goto(base + address);
      const paint = await page.evaluate(async () => {
        for (let i = 0; i < 100; i++) {
          const entry = performance.getEntriesByName('first-contentful-paint')[0];
          if (entry) return entry.startTime;
          await new Promise((resolve) => setTimeout(resolve, 20));
        }
        return Number.NaN;
      });
      line(`first paint of ${title}, ${round}`, `${paint.toFixed(0)} ms`, '');
      await page.close();
    }
  await whileRecording(browser, base);
  await besideRecorder(base);
  await browser.close();
  server.kill();
}

// `npm run bench -- ranking` asks only how fast faults are ranked; `recorder`, `book` and `start` how a run, a large book and a start fare;
// `npm run bench -- http://127.0.0.1:4380` asks a demo shop that runs already only how its recorder fares.
const [running, part] = process.argv.slice(2);
if (part === 'judge-hour') await judgeHour(running, 'job-ow-254-009', hourLog());
else if (running === 'ranking') rankingSpeed(line);
else if (running === 'drive') driveSpeed(line);
else if (running === 'recorder') await recorderSpeed(line, Number(part ?? 30));
else if (running === 'book') await bookSpeed(line);
else if (running === 'start') await startSpeed(line);
else if (running === 'evaluate') evaluateSpeed();
else if (running) await besideRecorder(running);
else {
  rigSpeed();
  analysis();
  rankingSpeed(line);
  driveSpeed(line);
  await firstPaint();
}
process.exit(0);
