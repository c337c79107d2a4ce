import { sweepBut } from './sweep';
import { expect } from '@playwright/test';
import { test } from './test';
import { build } from 'esbuild';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const folder = mkdtempSync(path.join(tmpdir(), 'hp-'));
const at = (name: string) => path.join(folder, name);

function run(...args: string[]) {
  const done = spawnSync(process.execPath, args, { encoding: 'utf8' });
  return { code: done.status, out: done.stdout, err: done.stderr };
}

// One file, which starts many times faster than the sources do one by one; beside the packages that it imports.
const bundle = path.resolve('node_modules/.cache/hp-under-test.mjs');
const hp = (...args: string[]) => run(bundle, ...args);

test.describe('the command line', () => {
  test.beforeAll(async () => {
    await build({
      entryPoints: ['src/cli/hp.ts'],
      bundle: true,
      platform: 'node',
      format: 'esm',
      packages: 'external',
      outfile: bundle,
    });
    writeFileSync(at('unit.json'), hp('example', 'vacuum-remote').out);
    expect(
      hp('simulate', '--unit', at('unit.json'), '--step', 'boost-curve', '--seed', '4', '--out', at('log.csv')).code,
    ).toBe(0);
  });

  test('lists families as its own script starts it', () => {
    const listed = run('scripts/hp.mjs', 'families');
    expect(JSON.parse(listed.out)).toEqual(JSON.parse(hp('families').out));
  });

  test('lists families, schema, prediction', () => {
    expect(JSON.parse(hp('families').out)[0].id).toBe('vacuum-remote');
    expect(JSON.parse(hp('schema', 'pedal-valve').out).properties.spec.type).toBe('object');
    const layouts = JSON.parse(hp('schema', 'vacuum-remote').out).properties.spec.oneOf;
    expect(layouts.map((each: { properties: object }) => Object.keys(each.properties).includes('slaveBoreMm'))).toEqual(
      [true, false],
    );
    const predicted = JSON.parse(hp('predict', '--unit', at('unit.json'), '--vacuum', '18 inHg').out);
    expect(predicted.supplyVacuumKpa).toBeCloseTo(60.955, 3);
  });

  test('plans a day, the same twice, and refuses one that is damaged', () => {
    const now = '2026-11-23T08:00:00+01:00';
    const hours = [{ from: now, to: '2026-11-23T16:00:00+01:00' }];
    const tasks = [{ id: 'hold', hands: 5, alone: 30, bench: true, role: null, began: null, person: null }];
    const job = (id: string) => ({ id, booked: now, promised: null, setUp: 'vacuum', bench: null, tasks });
    const day = {
      format: 'hard-pedal/day',
      version: 1,
      now,
      people: [{ id: 'noor', roles: [], hours }],
      benches: [{ id: 'bench 1', setUps: ['vacuum'], mounted: 'vacuum' }],
      setUpMinutes: 15,
      jobs: [job('TK-7'), job('UL-82')],
    };
    writeFileSync(at('day.json'), JSON.stringify(day));
    const planned = hp('plan', at('day.json'));
    expect([planned.code, planned.err]).toEqual([0, '']);
    const plan = JSON.parse(planned.out);
    expect(plan.jobs.map(({ finish }: { finish: string }) => finish)).toEqual([
      '2026-11-23T08:35:00+01:00',
      '2026-11-23T09:10:00+01:00',
    ]);
    expect(plan.jobs[1].why).toEqual(['bench 1 holds TK-7 until 08:35']);
    expect(hp('plan', at('day.json')).out).toBe(planned.out);
    writeFileSync(at('day.json'), JSON.stringify({ ...day, setUpMinutes: 'some' }));
    const refused = hp('plan', at('day.json'));
    expect([refused.code, refused.out]).toEqual([2, '']);
    expect(refused.err).toContain('setUpMinutes');
  });

  for (const [family, step, id] of [
    ['motor-pump-boost', 'charge-from-empty', 'precharge'],
    ['stored-pressure', 'charge-from-empty', 'precharge-2'],
    ['pedal-valve', 'modulation-curve', 'regulated-maximum'],
    ['hydraulic-boost', 'pump-relief', 'relief-pressure'],
  ] as const)
    test(
      `${family}: example, prediction, simulation and evaluation of ${step}`,
      sweepBut(family === 'hydraulic-boost'),
      () => {
        writeFileSync(at(`${family}.json`), hp('example', family).out);
        const predicted = JSON.parse(hp('predict', '--unit', at(`${family}.json`)).out) as {
          supplyPressureKpa: number;
        };
        expect(predicted.supplyPressureKpa).toBeGreaterThan(1000);
        const log = at(`${family}.csv`);
        hp('simulate', '--unit', at(`${family}.json`), '--step', step, '--seed', '4', '--out', log);
        const evaluation = JSON.parse(hp('evaluate', '--unit', at(`${family}.json`), `${step}=${log}`).out) as {
          steps: { step: string; verdict: string; characteristics: Record<string, { value: number }> }[];
        };
        const found = evaluation.steps.find((each) => each.step === step);
        expect(found?.verdict).toBe('pass');
        expect(found?.characteristics[id].value).toBeGreaterThan(1000);
      },
    );

  test('a motor booster: prediction at its voltage, a bad ground and a lost track found in their logs', () => {
    const unit = at('motor-boost.json');
    writeFileSync(unit, hp('example', 'motor-boost').out);
    const predicted = JSON.parse(hp('predict', '--unit', unit).out) as { supplyVoltageV: number };
    expect(predicted.supplyVoltageV).toBeCloseTo(13.2, 6);
    const judged = (step: string, ...fault: readonly string[]) => {
      const log = at(`motor-boost-${step}-${fault.at(-1) ?? 'sound'}.csv`);
      hp('simulate', '--unit', unit, '--step', step, '--seed', '4', ...fault, '--out', log);
      const { steps } = JSON.parse(hp('evaluate', '--unit', unit, `${step}=${log}`).out) as {
        steps: { step: string; verdict: string; characteristics: Record<string, { value: number; unit: string }> }[];
      };
      return steps.find((each) => each.step === step)!;
    };
    expect(judged('sensor-tracks').verdict).toBe('pass');
    const ground = judged('supply-check', '--fault', 'ground-resistance');
    expect(ground.verdict).toBe('fail');
    expect(ground.characteristics['ground-drop'].value).toBeGreaterThan(0.5);
    const lost = judged('sensor-tracks', '--fault', 'sensor-track-dropout');
    expect(lost.verdict).toBe('fail');
    expect(lost.characteristics.dropouts.value).toBe(2);
    expect(Object.keys(lost.characteristics)).toEqual(expect.arrayContaining(['track-gain', 'track-gain-2']));
    expect(judged('drain').characteristics['quiescent-current']).toMatchObject({
      unit: 'mA',
      value: expect.closeTo(8, 0),
    });
  });

  test('a decoupled unit: its layouts, a wheel that gets too little, a sensor by its name, a scan tool’s own log', () => {
    const unit = at('plunger.json');
    writeFileSync(unit, hp('example', 'brake by wire').out);
    expect(JSON.parse(hp('example', 'brake-by-wire', '--layout', 'accumulator').out)).toMatchObject({
      family: 'brake-by-wire',
    });
    const simulate = (step: string, out: string, ...more: readonly string[]) =>
      hp('simulate', '--unit', unit, '--step', step, '--seed', '4', ...more, '--out', at(out));
    const judged = (...logs: readonly string[]) =>
      (
        JSON.parse(hp('evaluate', '--unit', unit, ...logs).out) as {
          steps: { step: string; verdict: string; characteristics: Record<string, { value: number; unit: string }> }[];
        }
      ).steps;
    simulate('tracking', 'tracking.csv', '--fault', 'outlet-valve-leak');
    const tracking = judged(`tracking=${at('tracking.csv')}`).find(({ step }) => step === 'tracking')!;
    expect(tracking.verdict).toBe('fail');
    expect(tracking.characteristics['tracking-gain-rl'].value).toBeLessThan(0.8);
    expect(tracking.characteristics['lag-fl']).toMatchObject({ unit: 's', value: expect.closeTo(0.045, 1) });

    const rows = [0, 4000, 11_000].flatMap((kpa, level) =>
      Array.from({ length: 30 }, (_, i) => `${level * 3 + i / 10},${kpa},5,${0.5 + kpa * 0.00016}`),
    );
    for (const sensor of ['fl', 'rr'])
      writeFileSync(
        at(`${sensor}.csv`),
        `# sensor: ${sensor}\ntime [s],reference_pressure [kPa],sensor_supply [V],sensor_a [V]\n${rows.join('\n')}\n`,
      );
    const transfer = judged(`sensor-transfer=${at('fl.csv')}`, `sensor-transfer#2=${at('rr.csv')}`).find(
      ({ step }) => step === 'sensor-transfer',
    )!;
    expect(transfer.characteristics['sensor-gain-fl'].value).toBeCloseTo(1, 3);
    expect(transfer.characteristics['sensor-gain-rr'].value).toBeCloseTo(1, 3);
    expect(transfer.verdict).toBe('undecided');

    simulate('panic', 'scan.csv', '--as', 'scan-tool');
    expect(readFileSync(at('scan.csv'), 'utf8').split('\n')[0]).toMatch(/^Clock;Pedal_force \(N\);.*\(bar\)/);
  });

  test('a servo cylinder: example of its layout, prediction in newtons, and a fault found in its log', () => {
    writeFileSync(at('servo.json'), hp('example', 'vacuum-remote', '--layout', 'servo-cylinder').out);
    const predicted = JSON.parse(hp('predict', '--unit', at('servo.json')).out) as {
      apply: { inputKpa: number; rodForceN: number }[];
      limits: { characteristic: string; unit: string }[];
    };
    expect(predicted.apply.at(-1)?.rodForceN).toBeGreaterThan(1000);
    expect(predicted.limits.find((limit) => limit.characteristic === 'servo-force')?.unit).toBe('N');
    const log = at('servo.csv');
    hp(
      'simulate',
      '--unit',
      at('servo.json'),
      '--step',
      'boost-curve',
      '--fault',
      'power-piston-friction',
      '--out',
      log,
    );
    const evaluation = JSON.parse(hp('evaluate', '--unit', at('servo.json'), `boost-curve=${log}`).out) as {
      steps: { step: string; verdict: string; characteristics: Record<string, { value: number }> }[];
    };
    const found = evaluation.steps.find((each) => each.step === 'boost-curve');
    expect(found?.verdict).toBe('fail');
    expect(Object.keys(found?.characteristics ?? {})).toEqual(
      expect.arrayContaining(['servo-force', 'boost-slope', 'run-out-output', 'residual-output']),
    );
  });

  test('a log that calls its channels as they were called before is understood', () => {
    writeFileSync(at('valve.json'), hp('example', 'pedal-valve').out);
    const log = at('parking.csv');
    hp('simulate', '--unit', at('valve.json'), '--step', 'parking-release', '--seed', '4', '--out', log);
    const before = at('parking-before.csv');
    const text = readFileSync(log, 'utf8').replace('parking_pressure', 'output_pressure');
    writeFileSync(before, text.replace('parking_brake', 'lamp_amber'));
    const found = [log, before].map((file) => hp('evaluate', '--unit', at('valve.json'), `parking-release=${file}`));
    expect(found[1].code).toBe(0);
    expect(found[1].out).toBe(found[0].out);
  });

  test('runs with the gauges swapped are never averaged with unswapped ones', () => {
    const log = readFileSync(at('log.csv'), 'utf8');
    writeFileSync(at('swapped.csv'), `# gauges: swapped\n${log}`);
    const both = hp(
      'evaluate',
      '--unit',
      at('unit.json'),
      `boost-curve=${at('log.csv')}`,
      `boost-curve#2=${at('swapped.csv')}`,
    );
    expect(both.code).toBe(2);
    expect(both.out).toBe('');
    expect(both.err).toContain('swapped');
  });

  test('a log in psi and inHg evaluates as the same log in kPa', () => {
    const lines = readFileSync(at('log.csv'), 'utf8').trim().split('\n');
    const from = lines.findIndex((line) => line.startsWith('time'));
    const factors = lines[from]
      .split(',')
      .map((head) => (head.includes('_pressure') ? 6.894757 : head.includes('_vacuum') ? 3.386389 : 1));
    const header = lines[from]
      .split(',')
      .map((head) => head.replace(/(_pressure) \[kPa\]/, '$1 [psi]').replace(/(_vacuum) \[kPa\]/, '$1 [inHg]'));
    const rows = lines.slice(from + 1).map((line) =>
      line
        .split(',')
        .map((cell, c) => (cell === '' ? '' : String(Number(cell) / factors[c])))
        .join(','),
    );
    writeFileSync(at('psi.csv'), [header.join(','), ...rows].join('\n'));
    const kpa = JSON.parse(hp('evaluate', '--unit', at('unit.json'), `boost-curve=${at('log.csv')}`).out);
    const psi = JSON.parse(hp('evaluate', '--unit', at('unit.json'), `boost-curve=${at('psi.csv')}`).out);
    const of = (evaluation: {
      steps: { step: string; characteristics: Record<string, { value: number; expandedUncertainty: number }> }[];
    }) => evaluation.steps.find((step) => step.step === 'boost-curve')!.characteristics;
    expect(Object.keys(of(psi))).toEqual(Object.keys(of(kpa)));
    for (const [id, { value, expandedUncertainty }] of Object.entries(of(kpa))) {
      expect(Math.abs(of(psi)[id].value - value)).toBeLessThan(1e-5 * Math.abs(value) + 1e-4 * expandedUncertainty);
      expect(of(psi)[id].expandedUncertainty / expandedUncertainty).toBeCloseTo(1, 3);
    }
  });

  const evaluate = (log: string) => {
    writeFileSync(at('bad.csv'), log);
    return hp('evaluate', '--unit', at('unit.json'), `boost-curve=${at('bad.csv')}`);
  };
  const head = 'time [s],input_pressure [kPa],output_pressure [kPa]\n';

  const refusals: readonly [string, () => ReturnType<typeof hp>, string][] = [
    ['a missing column', () => evaluate('time [s],input_pressure [kPa]\n0,1\n'), 'bad.csv, line 1'],
    ['text in a number', () => evaluate(`${head}0,1,2\n1,much,3\n`), 'bad.csv, line 3, column "input_pressure"'],
    ['NaN', () => evaluate(`${head}0,1,2\n1,NaN,3\n`), 'bad.csv, line 3'],
    ['time running backwards', () => evaluate(`${head}1,1,2\n0,1,3\n`), 'bad.csv, line 3, column "time"'],
    ['three rows', () => evaluate(`${head}0,1,2\n1,1,3\n2,1,3\n`), '3 rows'],
    [
      'a binary file',
      () => hp('evaluate', '--unit', at('unit.json'), `boost-curve=${process.execPath}`),
      'not a text file',
    ],
    [
      'a negative diameter',
      () => {
        const sheet = JSON.parse(readFileSync(at('unit.json'), 'utf8'));
        writeFileSync(at('neg.json'), JSON.stringify({ ...sheet, spec: { ...sheet.spec, slaveBoreMm: -25 } }));
        return hp('predict', '--unit', at('neg.json'));
      },
      'neg.json: field spec.slaveBoreMm',
    ],
    ['an unknown family', () => hp('schema', 'teapot'), '"teapot"'],
    ['an unknown step', () => hp('evaluate', '--unit', at('unit.json'), `brew=${at('log.csv')}`), '"brew"'],
    [
      'an unknown fault',
      () =>
        hp('simulate', '--unit', at('unit.json'), '--step', 'boost-curve', '--fault', 'gremlins', '--out', at('x.csv')),
      '"gremlins"',
    ],
    [
      'a vacuum for a unit that is fed by pressure',
      () => {
        writeFileSync(at('valve.json'), hp('example', 'pedal-valve').out);
        return hp('predict', '--unit', at('valve.json'), '--vacuum', '60kPa');
      },
      '--vacuum',
    ],
    ['a vacuum that no pump reaches', () => hp('predict', '--unit', at('unit.json'), '--vacuum', '120kPa'), '--vacuum'],
    ['a layout that is none', () => hp('example', 'vacuum-remote', '--layout', 'sideways'), 'servo-cylinder'],
    ['a missing file', () => hp('predict', '--unit', at('nowhere.json')), 'nowhere.json'],
    ['a missing option', () => hp('predict'), '--unit'],
  ];
  for (const [what, run, said] of refusals)
    test(`${what} ends with exit code 2, names the place and prints nothing else`, () => {
      const { code, out, err } = run();
      expect(code).toBe(2);
      expect(out).toBe('');
      expect(err).toContain(said);
    });

  test('ranks what may be the matter, with what speaks for and against it, and names the next best test', () => {
    const leaking = (step: string) => {
      const log = at(`${step}-leak.csv`);
      const fault = ['--fault', 'vacuum-valve-leak:0.6', '--seed', '3'];
      expect(hp('simulate', '--unit', at('unit.json'), '--step', step, ...fault, '--out', log).code).toBe(0);
      return `${step}=${log}`;
    };
    const logs = ['boost-curve', 'vacuum-hold-applied'].map(leaking);
    const evaluation = JSON.parse(hp('evaluate', '--unit', at('unit.json'), ...logs).out);
    expect(evaluation.diagnosis[0]).toMatchObject({ fault: 'vacuum-valve-leak' });
    expect(evaluation.diagnosis[0].probability).toBeGreaterThan(0.9);
    expect(evaluation.diagnosis[0].severity[0]).toMatchObject({ unit: 'cm3/min', sound: 0 });
    const ledger = JSON.parse(hp('diagnose', '--unit', at('unit.json'), '--explain', ...logs).out);
    expect(ledger.format).toBe('hard-pedal/ledger');
    const total = ledger.rows.reduce((sum: number, row: { probability: number }) => sum + row.probability, 0);
    expect(total).toBeCloseTo(1, 2);
    expect(ledger.rows[0].findings.map((each: { step: string }) => each.step)).toContain('vacuum-hold-applied');
    const { fitted, severity } = ledger.rows[0];
    expect(fitted).toMatchObject({ unit: 'cm3/min', sound: 0, lies: 'inside' });
    expect(fitted.steps).toContain('vacuum-hold-applied');
    // Fitted to this sheet it is known better than by the tables of all sizes.
    expect(fitted.expandedUncertainty).toBeLessThan(severity[0].expandedUncertainty);
    expect(ledger.next.kind).toBe('certain');
    const asked = hp('diagnose', '--unit', at('unit.json'), '--symptom', 'hard-pedal');
    expect(JSON.parse(asked.out).nextTest).toMatchObject({ step: expect.any(String), minutes: expect.any(Number) });
    const strange = hp('diagnose', '--unit', at('unit.json'), '--symptom', 'squeals');
    expect([strange.code, strange.out]).toEqual([2, '']);
    expect(strange.err).toContain('squeals');
  });
});
