import { spawn } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import { FrameReader } from '@/core/traces/frame';
import type { WireWord } from '@/server/recording/wire-frame';
import { demoFolder, startServer } from './bench-server';

/**
 * A run at the fastest rate that is offered beside twenty Floors, a paper and findings, with five screens that follow it, and then with a
 * log of an hour that is brought and judged as well: gaps, how late the recorder was at its worst, memory. `npm run bench -- recorder 60`
 * for a minute of it.
 */
export async function recorderSpeed(
  line: (what: string, value: string, aim: string) => void,
  seconds: number,
): Promise<void> {
  const server = await startServer(demoFolder(), 4394);
  const { base } = server;
  const post = async (address: string, body: object) => {
    const headers = { 'Content-Type': 'application/json' };
    const response = await fetch(base + address, { method: 'POST', headers, body: JSON.stringify(body) });
    if (!response.ok) throw new Error(`${address}: ${response.status} ${await response.text()}`);
    return (await response.json()) as { id: string };
  };
  const person = 'Noor Halabi';
  // A step that waits for a hand goes on for as long as nobody pulls.
  const { id } = await post('/api/jobs/job-tk-2207-118/runs', { step: 'boost-curve', person });
  const gone = new AbortController();
  let word: WireWord | null = null;
  const follow = async () => {
    const frames = new FrameReader();
    const reader = (await fetch(`${base}/api/runs/${id}/stream`, { signal: gone.signal })).body!.getReader();
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      word = (frames.push(value)?.at(-1)?.said as WireWord | undefined) ?? word;
    }
  };
  for (let i = 0; i < 5; i++) void follow().catch(() => undefined);
  await post(`/api/runs/${id}/command`, { kind: 'speed', speed: 400 });
  await wait(3000);
  const before = server.memory();
  const pages = ['/', '/jobs/job-tk-2207-118/findings', '/api/jobs/job-ow-254-009/preview?units=kpa&person=x'];
  /** Twenty Floors, findings and a paper for so long; the most memory meanwhile, MB above the first seconds. */
  const beside = async (goesOn: () => boolean): Promise<number> => {
    let most = 0;
    const busy = async (at: number) => {
      while (goesOn()) {
        await (await fetch(base + pages[at < 20 ? 0 : at - 19])).arrayBuffer();
        most = Math.max(most, server.memory() - before);
        await wait(at < 20 ? 1000 : 200);
      }
    };
    await Promise.all(Array.from({ length: 22 }, (_, at) => busy(at)));
    return most;
  };
  const status = () => (word as WireWord | null)?.status;
  const until = performance.now() + seconds * 1000;
  const alone = await beside(() => performance.now() < until);
  const lateAlone = status()?.latest;
  // In a process of its own, as a browser is: what is measured is the server.
  let bringing = true;
  const hour = spawn(process.execPath, ['--import', 'tsx', 'scripts/bench.ts', base, 'judge-hour'], {
    stdio: ['ignore', 'ignore', 'inherit'],
  }).once('exit', () => (bringing = false));
  const withHour = await beside(() => bringing);
  if (hour.exitCode !== 0) throw new Error('the log of an hour was not judged');
  const end = status();
  await post(`/api/runs/${id}`, { action: 'stop' });
  gone.abort();
  line('pace of the rig, asked for × 400', `× ${end?.pace.toFixed(0)}`, 'as fast as it can beside the rest');
  line('recorder late at its worst', `${lateAlone} ms`, 'aim under 50 ms');
  line('memory above the first seconds', `${alone.toFixed(0)} MB`, 'aim under 300 MB');
  line('the same with a log of an hour: late at its worst', `${end?.latest} ms`, 'aim under 50 ms');
  line('the same: memory', `${withHour.toFixed(0)} MB`, '');
  line('gaps in the trace', `${end?.lost.gaps}`, 'each is named and counted');
  line('time in the trace', `${end?.elapsed.toFixed(0)} s`, '');
  await server.end();
}
