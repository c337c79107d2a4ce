/*
 * Small changes in analyses, judging and models, each of which the unit tests ought to notice. Every change is made in a
 * copy of the sources, the tests named beside it are run there, and what survived is listed. `npm run mutants` writes
 * its table to docs/mutants.md; it takes some ten minutes, so it is run on demand.
 */
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

interface Mutant {
  readonly file: string;
  readonly from: string;
  readonly to: string;
  /** Pattern of the unit tests that ought to notice. */
  readonly tests: string;
}

const judging = 'judging|evaluate|decide';
const holds = 'hold-evidence|hold-events|hold-entry|foreign-holds|families/analyses|inline-steps|band-and-typed';
const checks = 'foreign-checks|inline-steps|families/analyses';

const pulls = 'pull-evidence|foreign-pulls.test';
const steps = 'reserve-analysis|leak-down|foreign-steps.test';

const m = (file: string, from: string, to: string, tests: string): Mutant => ({
  file: `src/core/${file}.ts`,
  from,
  to,
  tests,
});

/** What the models know and every step is held against, with the tests of the analyses themselves. */
const truths =
  'families/truth|shell-temperature|vacuum-supply/supply|families/hands|families/analyses|toolboxes/|inline-steps|pump-down|release-analysis|reserve|observe';

const mutants: readonly Mutant[] = [
  // What is found must be what is true
  m(
    'toolboxes/vacuum/hold-entry',
    '(standardTemperature / context.airTemperature);',
    '(context.airTemperature / standardTemperature);',
    truths,
  ),
  m(
    'toolboxes/servo/reserve-analysis',
    'first.vacuum - second.vacuum, [',
    '2 * (first.vacuum - second.vacuum), [',
    truths,
  ),
  m(
    'families/vacuum-supply/pump-analyses',
    'value: before - later.mean - toCome,',
    'value: 2 * (before - later.mean - toCome),',
    truths,
  ),
  m(
    'toolboxes/analysis/release-analysis',
    'zero + 0.1 * (pull.peak - zero)',
    'zero + 0.2 * (pull.peak - zero)',
    truths,
  ),
  m('toolboxes/analysis/rise-analysis', 'zero < 0.9 * held', 'zero < 0.63 * held', truths),
  m(
    'families/motor-pump-boost/electrical-step',
    'rest.mean - loaded.mean, [',
    '2 * (rest.mean - loaded.mean), [',
    truths,
  ),
  m(
    'families/vacuum-inline/steps/vehicle-steps',
    'left.mean - first.vacuum, [',
    '2 * (left.mean - first.vacuum), [',
    truths,
  ),
  m(
    'toolboxes/servo/pedal-analyses',
    'after.mean - before.mean - creep.amount, [',
    '2 * (after.mean - before.mean - creep.amount), [',
    truths,
  ),
  m('toolboxes/vacuum/check-valve-analysis', 'vented.value - shut.value', 'vented.value', truths),
  m(
    'procedure/shell-temperature',
    'value: airTemperature,\n    standard: unsettledWithin',
    'value: airTemperature + 0.1,\n    standard: unsettledWithin',
    truths,
  ),
  // Pulls, lags, strokes, stores: what a log must show
  m('fitting/following-lag', 'lag: lowest.at,', 'lag: -lowest.at,', 'following-lag'),
  m('fitting/following-lag', 'const seen = 8;', 'const seen = 0;', 'following-lag'),
  m('procedure/pull-evidence', 'const quickest = 2.5;', 'const quickest = 0.01;', pulls),
  m('procedure/pull-evidence', 'const largestGap = 0.15;', 'const largestGap = 15;', pulls),
  m('procedure/pull-evidence', 'const unknownLag = 0.1;', 'const unknownLag = 0.001;', pulls),
  m('procedure/pull-evidence', 'const jerk = 4;', 'const jerk = 4e9;', pulls),
  m('toolboxes/servo/reserve-analysis', 'const storedShare = 0.2;', 'const storedShare = 0;', steps),
  m('toolboxes/servo/reserve-analysis', 'const refilledShare = 0.985;', 'const refilledShare = 9.85;', steps),
  m('toolboxes/vacuum/source-vacuum-analysis', 'const stillChanging = 1_500;', 'const stillChanging = 1.5e9;', steps),
  m('procedure/shell-temperature', 'const unsettledWithin = 5;', 'const unsettledWithin = 50;', 'shell-temperature'),
  m('toolboxes/store/analysis/precharge-analysis', 'left > emptyShare *', 'left < emptyShare *', steps),
  m('families/motor-pump-boost/electrical-step', 'const shortestRun = 3;', 'const shortestRun = 0;', steps),
  m('toolboxes/store/analysis/leak-down', 'const leastStored = 0.4;', 'const leastStored = 0;', steps),
  m('dials/default-dial', 'divisions: 200 }', 'divisions: 2e9 }', 'default-dial'),
  // Decisions, uncertainty, repeats
  m('judging/decide', 'value - guard > high', 'value + guard > high', judging),
  m('judging/decide', 'value + guard < low', 'value - guard < low', judging),
  m('judging/decide', 'value + guard <= high', 'value - guard <= high', judging),
  m('judging/decide', '2 * interval.standard)', '0 * interval.standard)', judging),
  m('judging/decide', 'const bestGauge = 10;', 'const bestGauge = 1e9;', judging),
  m('judging/combine-repeats', 'Math.sqrt(squares) / n', 'Math.sqrt(squares / n)', judging),
  m('judging/combine-repeats', '/ (n - 1) / n;', '/ (n - 1);', judging),
  m('judging/combine-repeats', 'const apart = 3;', 'const apart = 300;', judging),
  m('judging/judge-step', 'bound.value - guard > limit.high', 'bound.value - guard < limit.high', judging),
  m('judging/judge-step', "=== 'not-run' && !step.optional", "=== 'not-run' && step.optional", judging),
  m(
    'judging/evaluate-unit',
    "doubts.length > 0 && checked !== 'fail'",
    'doubts.length > 1e9',
    `${checks}|${judging}|make-dead`,
  ),
  m('instruments/uncertainty', 'export const coverageFactor = 2;', 'export const coverageFactor = 1;', 'uncertainty'),
  m('instruments/uncertainty', "=== 'overdue' ? 2 : 1", "=== 'overdue' ? 1 : 1", 'uncertainty'),
  m('instruments/uncertainty', 'return a / 3;', 'return a / 6;', 'uncertainty'),
  m('instruments/uncertainty', 'fraction < 0.2 ?', 'fraction < 2 ?', 'uncertainty'),
  m('instruments/uncertainty', '(Math.SQRT2 * instrument.resolution)', '(2 * instrument.resolution)', 'uncertainty'),
  m('instruments/uncertainty', 'Math.sqrt(Math.max(0, seconds) / 60)', '(Math.max(0, seconds) / 60)', 'uncertainty'),
  // Holds, leaks, valves
  m('toolboxes/vacuum/held-change', 'value: -change.value,', 'value: change.value,', holds),
  m('toolboxes/vacuum/hold-analysis', 'value < -expandedUncertainty', 'value < -1e9 * expandedUncertainty', holds),
  m(
    'toolboxes/vacuum/hold-analysis',
    '* standardTemperature) / context.airTemperature',
    '* context.airTemperature) / standardTemperature',
    `${holds}|leak`,
  ),
  m('toolboxes/vacuum/hold-evidence', 'const noVacuum = 2_000;', 'const noVacuum = -2_000;', holds),
  m('toolboxes/vacuum/hold-evidence', 'const leastShare = 0.8;', 'const leastShare = 0.08;', holds),
  m('toolboxes/vacuum/hold-evidence', 'const restShare = 0.08;', 'const restShare = 8;', holds),
  m('toolboxes/vacuum/hold-evidence', 'const appliedShare = 0.8;', 'const appliedShare = 0;', holds),
  m('toolboxes/vacuum/hold-evidence', 'const fullShare = 0.95;', 'const fullShare = 0.1;', holds),
  m('toolboxes/vacuum/hold-evidence', 'const longestGapShare = 0.3;', 'const longestGapShare = 30;', holds),
  m('toolboxes/vacuum/hold-events', 'const recoveryShare = 0.3;', 'const recoveryShare = 300;', holds),
  m('toolboxes/vacuum/hold-events', 'const atOnceShare = 0.08;', 'const atOnceShare = 8;', holds),
  m('toolboxes/vacuum/hold-events', 'const lasting = 2;', 'const lasting = 0;', holds),
  m('toolboxes/vacuum/hold-entry', 'const factor = stated / seconds;', 'const factor = seconds / stated;', holds),
  m('toolboxes/vacuum/hold-entry', 'if (end < noVacuum)', 'if (end < -noVacuum)', 'inline-steps'),
  m(
    'toolboxes/vacuum/hold-entry',
    '(standardTemperature / context.airTemperature)',
    '(context.airTemperature / standardTemperature)',
    holds,
  ),
  m('toolboxes/vacuum/check-valve-analysis', 'vented.value - shut.value', 'shut.value - vented.value', checks),
  m('toolboxes/vacuum/check-valve-analysis', "[{ code: 'side-not-seen-open' }]", '[]', checks),
  m('toolboxes/vacuum/check-valve-analysis', 'const openBelow = 0.1;', 'const openBelow = 2;', checks),
  m('toolboxes/vacuum/pressure-hold-analysis', 'const letBackShare = 0.05;', 'const letBackShare = 50;', checks),
  m('toolboxes/vacuum/pressure-hold-analysis', 'if (level < low || level > high)', 'if (level > high)', checks),
  m('toolboxes/vacuum/early-call', '&& grown <= limit', '', 'early-call.test|hold-prediction|watch'),
  m(
    'toolboxes/vacuum/early-call',
    'const diesDown = 0.6;',
    'const diesDown = 6;',
    'early-call.test|hold-prediction|watch',
  ),
  m(
    'toolboxes/vacuum/source-vacuum',
    'local - (seaLevelPressure - seaLevelVacuum)',
    'local + (seaLevelPressure - seaLevelVacuum)',
    'source-vacuum|supply',
  ),
  m(
    'toolboxes/vacuum/source-vacuum-analysis',
    "(kind === 'manifold' ? 1 :",
    "(kind === 'manifold' ? 0 :",
    'source-vacuum',
  ),
  m('traces/stuck', 'const timesLonger = 8;', 'const timesLonger = 8e6;', `${holds}|make-dead`),
  m('fitting/settling', 'rate: found[1],', 'rate: found[2],', `${holds}|fitting|settling`),
  // Dead, stores, servos
  m(
    'toolboxes/store/steps/make-dead-step',
    'reading < -expandedUncertainty',
    'reading < -1e9 * expandedUncertainty',
    'make-dead',
  ),
  m('toolboxes/store/steps/make-dead-step', 'seen >= notSeen', 'seen > notSeen', 'make-dead'),
  m('toolboxes/store/steps/make-dead-step', '&& between >= 2', '', 'make-dead'),
  m(
    'toolboxes/store/analysis/applications',
    '(stroke) => !stroke.useful);',
    '(stroke) => stroke.useful);',
    'applications',
  ),
  m('physics/gas-law', '((gauge + ambient) * to) / from', '((gauge + ambient) * from) / to', 'gas|sphere|precharge'),
  m(
    'physics/gas-law',
    'pow(precharge / pressure, 1 / exponent)',
    'pow(precharge / pressure, exponent)',
    'gas|store|charge',
  ),
  m('physics/nozzle', 'const gamma = 1.4;', 'const gamma = 1.2;', 'model|nozzle'),
  m(
    'toolboxes/servo/servo-law',
    'if (force < unit.cutInForce) return 0;',
    'if (force < 2 * unit.cutInForce) return 0;',
    'servo-law|inline-model',
  ),
  m(
    'toolboxes/servo/servo-law',
    '- unit.masterSpring) / unit.masterArea',
    '+ unit.masterSpring) / unit.masterArea',
    'servo-law|inline-model',
  ),
  m('toolboxes/servo/pedal-analyses', '- creep.amount', '+ creep.amount', 'pedal-analyses'),
  m(
    'toolboxes/servo/pedal-analyses',
    'after.mean - before.mean - creep',
    '2 * (after.mean - before.mean) - creep',
    'pedal-analyses',
  ),
  m('toolboxes/servo/pedal-analyses', 'withVacuum / without', 'without / withVacuum', 'inline-steps|pedal'),
  m(
    'toolboxes/servo/reserve-analysis',
    '(first + unassisted) / 2',
    '(first + unassisted)',
    'inline-steps|reserve-analysis',
  ),
  m(
    'toolboxes/servo/reserve-analysis',
    'first.vacuum - second.vacuum, [',
    '2 * (first.vacuum - second.vacuum), [',
    'inline-steps|reserve-analysis',
  ),
  m(
    'toolboxes/servo/assist-curve-analysis',
    "measured('force-hysteresis', applied - released",
    "measured('force-hysteresis', released - applied",
    'inline-steps|servo-law',
  ),
  m(
    'toolboxes/analysis/release-analysis',
    '0.1 * (pull.peak',
    '0.2 * (pull.peak',
    'release-analysis|families/analyses|inline-steps',
  ),
  m(
    'toolboxes/analysis/metering-analysis',
    'cutIn: -line.intercept / line.slope',
    'cutIn: line.intercept / line.slope',
    'metering',
  ),
  m(
    'toolboxes/analysis/rise-analysis',
    'zero < 0.9 * held',
    'zero < 0.63 * held',
    'pedal-valve|stored-faults|registry',
  ),
  // Air, references
  m('quantities/standard-atmosphere', '- 2.25577e-5 * altitude', '- 2.25577e-4 * altitude', 'quantities'),
  m(
    'quantities/standard-atmosphere',
    'const unknownAltitudeStandard = 6_000;',
    'const unknownAltitudeStandard = 6;',
    'quantities|source-vacuum',
  ),
  m('formats/infer-reference', 'high <= aboutZero.vacuum && low', 'high <= 1e9 && low', 'infer-reference'),
  m('formats/infer-reference', 'high > bestVacuum * ambient', 'high > 9 * ambient', 'infer-reference'),
  m(
    'formats/infer-reference',
    'const eitherWay = [0.12, 0.5] as const;',
    'const eitherWay = [0.6, 0.5] as const;',
    'infer-reference',
  ),
];

const root = process.cwd();
const copy = mkdtempSync(path.join(tmpdir(), 'mutants-'));
for (const each of ['src', 'tests', 'scripts', 'package.json', 'tsconfig.json', 'next.config.ts'])
  cpSync(path.join(root, each), path.join(copy, each), { recursive: true });
for (const each of ['jest.config.mjs', ...readdirSync(root).filter((name) => name.startsWith('jest.setup'))])
  cpSync(path.join(root, each), path.join(copy, each));
symlinkSync(path.join(root, 'node_modules'), path.join(copy, 'node_modules'));

/** Whether the tests of a pattern pass in the copy as it stands. */
function passes(tests: string): boolean {
  const run = spawnSync(
    'node',
    ['node_modules/jest/bin/jest.js', '--selectProjects', 'core', '--bail', '--testPathPatterns', tests],
    {
      cwd: copy,
      encoding: 'utf8',
      timeout: 300_000,
    },
  );
  return run.status === 0;
}

try {
  const only = process.argv[2];
  const chosen = mutants.filter(({ file, tests }) => only === undefined || file.includes(only) || tests.includes(only));
  const patterns = [...new Set(chosen.map(({ tests }) => tests))].join('|');
  if (!passes(patterns)) throw new Error('the tests fail before anything was changed');
  const rows = chosen.map((mutant) => {
    const at = path.join(copy, mutant.file);
    const text = readFileSync(at, 'utf8');
    if (text.split(mutant.from).length !== 2) throw new Error(`${mutant.file}: "${mutant.from}" stands there not once`);
    writeFileSync(at, text.replace(mutant.from, mutant.to));
    const killed = !passes(mutant.tests);
    writeFileSync(at, text);
    process.stdout.write(`${killed ? 'killed  ' : 'SURVIVES'} ${mutant.file}: ${mutant.from} → ${mutant.to}\n`);
    return { ...mutant, killed };
  });
  const killed = rows.filter((row) => row.killed).length;
  const line = `${killed} of ${rows.length} killed (${((100 * killed) / rows.length).toFixed(0)} %)`;
  process.stdout.write(`${line}\n`);
  const shown = (text: string) => `\`${text.replace(/\s+/g, ' ').replace(/\|/g, '\\|')}\``;
  const table = rows.map(
    (row) =>
      `| ${row.file.replace('src/core/', '')} | ${shown(row.from)} | ${shown(row.to)} | ${row.killed ? 'killed' : '**survives**'} |`,
  );
  if (only === undefined)
    writeFileSync(
      path.join(root, 'docs/mutants.md'),
      [
        '# Mutants',
        '',
        `Small changes that the unit tests ought to notice, made one at a time by \`npm run mutants\`: ${line}.`,
        '',
        '| file | was | became | |',
        '| --- | --- | --- | --- |',
        ...table,
        '',
      ].join('\n'),
    );
} finally {
  rmSync(copy, { recursive: true, force: true });
}
