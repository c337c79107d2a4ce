import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { kindNamed } from '@/core/families';
import { writeBenchLog } from '@/core/formats/bench-log';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { randomSource } from '@/core/physics/random';
import { simulateStep } from '@/core/rig/run-step';
import { makeTrace, type Trace } from '@/core/traces/trace';

/*
 * One curve at any number of rows, judged by the command line as a whole process: the verdict must not hang on the rate. Beside it, pair by
 * pair, a script that reads, filters and fits the same with pandas and scipy, where this machine has a Python that has them (PYTHON).
 */

const rows = [10_000, 100_000, 1_000_000] as const;
const pairs = 5;
const python = process.env.PYTHON ?? 'python3';

/** The same pull with so many rows: between its samples straight, every row with a scatter of its own; two columns more of nothing in particular. */
function written(trace: Trace, count: number): Trace {
  const random = randomSource(7);
  const { time } = trace;
  const span = time[time.length - 1] - time[0];
  const at = Float64Array.from({ length: count }, (_, i) => time[0] + (span * i) / (count - 1));
  const place = at.map((t) => Math.min(time.length - 1.001, ((t - time[0]) / span) * (time.length - 1)));
  const drawn = (column: Float64Array) => {
    const scatter = 1e-3 * column.reduce((most, each) => Math.max(most, Math.abs(each)), 0);
    return place.map((p) => {
      const i = Math.floor(p);
      return column[i] + (p - i) * (column[i + 1] - column[i]) + (scatter > 1 ? scatter * random.normal() : 0);
    });
  };
  const columns = Object.entries(trace.columns).map(([id, column]) => [id, drawn(column)] as const);
  const wave = (period: number) => at.map((t) => Math.sin(t / period));
  return makeTrace(at, {
    ...Object.fromEntries(columns),
    rod_force: wave(60),
    rod_travel: wave(30),
    air_temperature: wave(9).map((v) => 290 + v),
  });
}

function took(command: string, args: readonly string[]): { readonly seconds: number; readonly out: string } | null {
  const from = performance.now();
  const { status, stdout } = spawnSync(command, args, { encoding: 'utf8', maxBuffer: 1e8 });
  return status === 0 ? { seconds: (performance.now() - from) / 1000, out: stdout } : null;
}

export function evaluateSpeed(): void {
  const kind = kindNamed('vacuum-remote');
  const checked = checkKind(kind, 'bench', kind.sheet.example.spec, 'bench');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const step = kind.steps.find(({ id }) => id === 'boost-curve');
  if (step?.kind !== 'measured') throw new Error('there is no curve');
  const context = contextAt(checked.value, {}, '2026-11-23');
  const pull = simulateStep(kind, step, context, { faults: [], benchSeed: 3, runSeed: 3 });
  const folder = mkdtempSync(path.join(tmpdir(), 'evaluate-'));
  const unit = path.join(folder, 'unit.json');
  writeFileSync(unit, took(process.execPath, ['scripts/hp.mjs', 'example', 'vacuum-remote'])?.out ?? '');
  try {
    for (const count of rows) {
      const log = path.join(folder, `${count}.csv`);
      writeFileSync(log, writeBenchLog(written(pull, count), {}));
      const evaluate = () =>
        took(process.execPath, ['scripts/hp.mjs', 'evaluate', '--unit', unit, `boost-curve=${log}`]);
      const script = () => took(python, ['scripts/bench-evaluate.py', log]);
      const both = Array.from({ length: pairs }, () => [evaluate(), script()] as const);
      const judged = JSON.parse(both[0][0]?.out ?? '{"steps":[]}') as {
        steps: { step: string; verdict: string; characteristics: Record<string, { value: number }> }[];
      };
      const curve = judged.steps.find((each) => each.step === 'boost-curve');
      const ratio = curve?.characteristics['boost-ratio']?.value.toFixed(3) ?? 'none';
      const own = median(both.map(([mine]) => mine?.seconds ?? Number.NaN));
      const ratios = both.flatMap(([mine, other]) => (mine && other ? [mine.seconds / other.seconds] : []));
      const against =
        ratios.length > 0
          ? `${median(ratios).toFixed(2)} of the script’s time`
          : `no ${python} with pandas and scipy here`;
      process.stdout.write(
        `hp evaluate, ${count.toLocaleString('en')} rows: ${own.toFixed(2)} s, ${curve?.verdict}, ratio ${ratio}; ${against}\n`,
      );
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const median = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[values.length >> 1] ?? Number.NaN;
