import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

const run = promisify(execFile);

/**
 * What a study of `scripts/studies/` prints. It runs in a process of its own: the simulation is many times faster outside
 * a test runner's sandbox.
 */
export async function study<T>(script: string, ...args: readonly (string | number)[]): Promise<T> {
  const { stdout } = await run(
    process.execPath,
    ['--import', 'tsx', `scripts/studies/${script}.ts`, ...args.map(String)],
    { maxBuffer: 1e8 },
  );
  return JSON.parse(stdout) as T;
}
