import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** A server on a shop of its own, for a measurement. */
export interface MeasuredServer {
  readonly base: string;
  readonly data: string;
  /** ms from its start to its first Floor. */
  readonly toFirstFloor: number;
  /** Memory that the server has in use, MB. */
  memory(): number;
  end(): Promise<void>;
}

/** The demo shop, filled once and copied. */
export function demoFolder(): string {
  const data = mkdtempSync(path.join(tmpdir(), 'measured-'));
  const filled = process.env.SEEDED_SHOP;
  if (filled) cpSync(filled, data, { recursive: true });
  else {
    const env = { ...process.env, HARD_PEDAL_DATA: data };
    execFileSync(process.execPath, ['--import', 'tsx', 'scripts/seed-demo-shop.ts'], { env, stdio: 'ignore' });
  }
  return data;
}

const childrenOf = (pid: number): readonly number[] =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').split(' ').filter(Boolean).map(Number);

/** Starts the built server on a folder. */
export async function startServer(data: string, port: number): Promise<MeasuredServer> {
  const env = { ...process.env, HARD_PEDAL_DATA: data, PORT: String(port), NEXT_TELEMETRY_DISABLED: '1' };
  const from = performance.now();
  const launcher: ChildProcess = spawn(process.execPath, ['scripts/serve.mjs'], {
    env,
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  await new Promise((resolve) => launcher.stdout?.once('data', resolve));
  return {
    base: `http://127.0.0.1:${port}`,
    data,
    toFirstFloor: performance.now() - from,
    memory: () =>
      childrenOf(launcher.pid!)
        .map((pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024)
        .reduce((sum, each) => sum + each, 0),
    end: () =>
      new Promise((resolve) => {
        launcher.once('exit', () => resolve());
        launcher.kill();
      }),
  };
}
