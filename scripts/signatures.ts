import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { makeSignatures } from '@/core/diagnosis/make-signatures';
import { everyKind } from '@/core/families';
import { signatureFile, writeSignatures } from '@/server/context/signature-file';
import { exampleBench, variedBench } from '../tests/support/varied-bench';

/*
 * What every fault of every kind does to every figure of its plans, as committed tables:
 *   npm run signatures                 (all of them: some twenty minutes)
 *   npm run signatures -- vacuum-supply (those whose file name begins so)
 */

/** Units of other sizes beside the example. */
const others = 4;

const everyTable = everyKind.flatMap((kind) => kind.plans.map((plan) => ({ kind, plan: plan.id })));

function make(index: number): void {
  const { kind, plan } = everyTable[index];
  const benches = Array.from({ length: others }, (_, at) => variedBench(kind, plan, at + 1));
  const started = performance.now();
  const table = makeSignatures(kind, [exampleBench(kind, plan), ...benches]);
  const file = writeSignatures(table);
  process.stdout.write(`${path.basename(file)}: ${((performance.now() - started) / 1000).toFixed(0)} s\n`);
}

const [asked, index] = process.argv.slice(2);
if (asked === '--one') make(Number(index));
else {
  const queue = everyTable.flatMap(({ kind, plan }, at) =>
    path.basename(signatureFile(kind, plan)).startsWith(asked ?? '') ? [at] : [],
  );
  const worker = (): void => {
    const next = queue.shift();
    if (next === undefined) return;
    const child = spawn(process.execPath, ['--import', 'tsx', fileURLToPath(import.meta.url), '--one', String(next)], {
      stdio: 'inherit',
    });
    child.on('exit', (code) => {
      if (code !== 0) process.exitCode = 1;
      worker();
    });
  };
  for (let at = 0; at < availableParallelism(); at++) worker();
}
