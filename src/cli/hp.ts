import { writeFileSync } from 'node:fs';
import { Command, CommanderError } from 'commander';
import { everyKind, findStep } from '@/core/families';
import { entryOf, notReadByHand } from '@/core/dials/characteristic-entry';
import { notByHandText } from '@/core/wording/not-by-hand-text';
import { readBy } from '@/core/procedure/typed-entry';
import { openUnits } from '@/core/quantities/shown-as';
import { planOf, supplyOf } from '@/core/contract/kind';
import { planDay } from '@/core/day-plan/plan-day';
import { standInSource, writeBenchLog } from '@/core/formats/bench-log';
import { fitSeverity } from '@/core/diagnosis/fit-severity';
import { leadingFaults, ledgerOf } from '@/core/diagnosis/ledger';
import { readDay, writeDayPlan } from '@/core/formats/day-file';
import { writeEvaluation } from '@/core/formats/evaluation';
import { writeDiagnosis, writeLedger, writeNextTest } from '@/core/formats/ledger';
import { writePrediction } from '@/core/formats/prediction';
import { writeUnitSheet, unitSheetJsonSchema } from '@/core/formats/unit-sheet';
import type { StepContext } from '@/core/procedure/step-context';
import type { TypedStep } from '@/core/procedure/step-definition';
import type { TypedValues } from '@/core/procedure/typed-entry';
import { concludeInquiry } from '@/core/judging/conclude-inquiry';
import { evaluateUnit } from '@/core/judging/evaluate-unit';
import { characteristicRow, openName, characteristicTitle } from '@/core/quantities/characteristics';
import { unitOf } from '@/core/quantities/measurement-unit';
import { hasStandIn, readStandIn, simulateStep } from '@/core/rig/run-step';
import { scanToolLog } from '@/core/rig/scan-tool';
import type { Trace } from '@/core/traces/trace';
import { readProblemText } from '@/core/wording/read-problem-text';
import { readSignatures } from '@/server/context/signature-file';
import { fail, orFail, UnusableInput } from './failure';
import {
  assumed,
  exampleContext,
  familyNamed,
  faultArgument,
  logEvidence,
  judgedStep,
  kindSaid,
  layoutSaid,
  readingEvidence,
  readText,
  symptomArguments,
  unitAtSite,
  vacuumArgument,
} from './inputs';

function print(data: unknown): void {
  process.stdout.write(`${JSON.stringify(data, null, 2)}\n`);
}

const today = () => new Date().toISOString().slice(0, 10);

function listFamilies(): void {
  print(
    everyKind.map((kind) => ({
      id: kind.family,
      ...layoutSaid(kind),
      title: kind.title,
      description: kind.description,
      plans: kind.plans.map((plan) => ({ id: plan.id, title: plan.title, steps: plan.steps })),
      steps: kind.steps.map((step) => ({
        id: step.id,
        title: step.title,
        kind: step.kind,
        optional: step.optional,
        channels: step.kind === 'measured' ? { needs: step.feeds.log.needs, uses: step.feeds.log.uses } : null,
        findings: step.kind === 'look' ? step.feeds.look.points.map((point) => point.id) : [],
        characteristics: step.characteristics.map((id) => ({
          id: openName(id),
          title: characteristicTitle(id),
          unit: characteristicRow(id).unit,
        })),
      })),
      faults: kind.model.faults.map(({ id, title, shows }) => ({ id, title, shows })),
      parts: kind.parts,
      symptoms: kind.symptoms.map(({ id, title }) => ({ id, title })),
    })),
  );
}

/** What each step asks for when it is read off dials, at the example sheet. */
function listDials(id: string, layout?: string): void {
  const kind = kindSaid(familyNamed(id), layout);
  print(
    kind.plans.flatMap((plan) => {
      const context = exampleContext(kind, { date: today(), plan: plan.id });
      return plan.steps.flatMap((stepId) => {
        const step = findStep(kind, stepId);
        if (!step || step.kind === 'look') return [];
        const unread = notReadByHand(step);
        if (unread) {
          const live = step.kind === 'measured' && step.feeds.live !== undefined;
          return [{ plan: plan.id, step: step.id, fields: [], notByHand: notByHandText(unread, live) }];
        }
        const fields = entryOf(step)
          .fields(context, {})
          // Of a table the first row stands for all: `force#2` is the next one's.
          .filter(({ row }) => !row || row.at === 1)
          .map((field) => ({
            field: field.id,
            ...(field.row ? { rows: true } : {}),
            with: readBy(field),
            title: field.row?.heading ?? field.title,
            hint: field.hint,
            unit: field.choices ? null : openUnits[field.as],
            ...(field.choices ? { choices: field.choices } : {}),
            channel: field.channel,
            optional: field.optional,
          }));
        return [{ plan: plan.id, step: step.id, fields }];
      });
    }),
  );
}

interface UnitOptions {
  readonly unit: string;
  readonly site?: string;
}

function predict(options: UnitOptions & { readonly vacuum?: string; readonly plan?: string }): void {
  const { sheet, context } = unitAtSite(options.unit, options.site, { date: today(), plan: options.plan });
  const fedBy = planOf(sheet.kind, context.plan).supply?.kind;
  if (options.vacuum !== undefined && fedBy !== 'vacuum')
    fail({
      code: 'bad-argument',
      argument: '--vacuum',
      detail: `a ${sheet.kind.family} unit is fed by ${fedBy ?? 'nothing'}`,
    });
  const vacuum = options.vacuum === undefined ? supplyOf(sheet.kind, context) : vacuumArgument(options.vacuum);
  if (fedBy === 'vacuum' && vacuum >= context.ambient.pressure)
    fail({ code: 'bad-argument', argument: '--vacuum', detail: 'more than the local atmosphere: no pump reaches it' });
  print(writePrediction(sheet.kind, context, vacuum));
}

interface SimulateOptions extends UnitOptions {
  readonly step: string;
  readonly plan?: string;
  readonly fault?: string;
  readonly seed: string;
  readonly as?: string;
  readonly out: string;
}

/** A trace as a bench log, or as a scan tool would have written it: what no controller knows is not in that. */
function asTold(as: string | undefined, trace: Trace, metadata: Readonly<Record<string, string>>): string {
  if (as === undefined || as === 'bench-log') return writeBenchLog(trace, metadata);
  if (as !== 'scan-tool')
    fail({ code: 'bad-argument', argument: '--as', detail: `"${as}" is neither bench-log nor scan-tool` });
  return scanToolLog(trace, (channel) => !benchOnly.includes(channel));
}

/** Gauges of a bench: no controller has them. */
const benchOnly: readonly string[] = [
  'reference_pressure',
  'sensor_at',
  'rod_force',
  'sleep_current',
  'ground_voltage',
];

function simulate(options: SimulateOptions): void {
  const { sheet, context } = unitAtSite(options.unit, options.site, {
    date: today(),
    plan: options.plan,
    step: options.step,
  });
  const step = judgedStep(sheet.kind, options.step);
  if (step.kind === 'measured' && !hasStandIn(sheet.kind, step))
    fail({ code: 'bad-argument', argument: '--step', detail: `no bench runs ${step.id}: only a log of it is taken` });
  const seed = Number(options.seed);
  if (!Number.isInteger(seed))
    fail({ code: 'bad-argument', argument: '--seed', detail: `"${options.seed}" is not a whole number` });
  const faults = options.fault === undefined ? [] : [faultArgument(sheet.kind, options.fault)];
  const metadata = {
    source: standInSource,
    unit: sheet.name,
    step: step.id,
    seed: String(seed),
    ...(options.fault === undefined ? {} : { fault: options.fault }),
  };
  const text =
    step.kind === 'typed'
      ? typedReadings(step, context, readStandIn(sheet.kind, step, context, { faults, seed }))
      : asTold(
          options.as,
          simulateStep(sheet.kind, step, context, { faults, benchSeed: seed, runSeed: seed }),
          metadata,
        );
  try {
    writeFileSync(options.out, text);
  } catch (error) {
    fail({ code: 'unreadable', file: options.out, detail: error instanceof Error ? error.message : String(error) });
  }
}

/** What a typed step's instruments show, as a readings table of its characteristics. */
function typedReadings(step: TypedStep<unknown>, context: StepContext<unknown>, values: TypedValues): string {
  const rows = step.feeds.dials.analyse(values, context).characteristics.flatMap((each) => {
    if (each.kind !== 'measured') return [];
    const unit = unitOf(characteristicRow(each.id).unit);
    return [
      [step.id, openName(each.id), String(Number((each.estimate.value / unit.factor).toPrecision(8))), unit.symbol],
    ];
  });
  return `${[['step', 'characteristic', 'value', 'unit'], ...rows].map((row) => row.join(',')).join('\n')}\n`;
}

interface EvaluateOptions extends UnitOptions {
  readonly plan?: string;
  readonly readings?: string;
  readonly assume?: readonly string[];
  readonly symptom?: readonly string[];
}

/** Judges what was handed in, and ranks what may be the matter. */
function judged(assignments: readonly string[], options: EvaluateOptions) {
  const { sheet, context } = unitAtSite(options.unit, options.site, { date: today(), plan: options.plan });
  const plan = planOf(sheet.kind, context.plan);
  const evidence = [
    ...logEvidence(sheet.kind, assignments, {
      ambient: context.ambient.pressure,
      assume: assumed(options.assume ?? []),
      context,
    }),
    ...(options.readings === undefined ? [] : readingEvidence(sheet.kind, options.readings, context)),
  ];
  const evaluation = evaluateUnit(sheet.kind, plan.steps, evidence, { context, policy: 'guarded' });
  const table = readSignatures(sheet.kind, context.plan);
  const symptoms = symptomArguments(sheet.kind, options.symptom ?? []);
  const ledger = table && ledgerOf(sheet.kind, table, { context, steps: evaluation.steps, symptoms });
  return { kind: sheet.kind, plan, evaluation, ledger, table, context };
}

function evaluate(assignments: readonly string[], options: EvaluateOptions): void {
  const { plan, evaluation, ledger } = judged(assignments, options);
  const state = concludeInquiry(plan, evaluation);
  print(writeEvaluation(evaluation, state.kind === 'concluded' ? state.conclusion : null, ledger));
}

function diagnose(assignments: readonly string[], options: EvaluateOptions & { readonly explain?: boolean }): void {
  const { kind, evaluation, ledger, table, context } = judged(assignments, options);
  if (!ledger || !table) throw new Error(`there is no table of signatures for ${kind.family}: run npm run signatures`);
  print(
    options.explain
      ? writeLedger(
          kind,
          ledger,
          evaluation.steps,
          leadingFaults(ledger).flatMap((fault) => fitSeverity(kind, table, context, evaluation.steps, fault) ?? []),
        )
      : { diagnosis: writeDiagnosis(ledger), nextTest: writeNextTest(ledger.next) },
  );
}

/** What a command is given of a unit: its sheet, where it was tested, and everything that was found. */
function withEvidence(command: Command): Command {
  return command
    .requiredOption('--unit <file>', 'unit sheet')
    .option('--site <file>', 'site file')
    .option('--plan <id>', 'bench or vehicle; the family’s first plan where left out')
    .option('--readings <file>', 'typed values and findings (CSV)')
    .option('--assume <channel=as...>', 'how a channel is to be read: absolute, vacuum, gauge or negative')
    .option('--symptom <id...>', 'what the driver noticed; hp families lists them');
}

function program(): Command {
  const hp = new Command('hp')
    .description('Bench tests of power-assist brake units, on files')
    .exitOverride()
    .showHelpAfterError();
  hp.command('families').description('families with their steps, characteristics and faults').action(listFamilies);
  hp.command('dials <family>')
    .description('what each step asks for when it is read off dials')
    .option('--layout <id>', 'layout of a family that has several')
    .action((id: string, options: { readonly layout?: string }) => listDials(id, options.layout));
  hp.command('schema <family>')
    .description('JSON Schema of the unit sheet')
    .action((id: string) => print(unitSheetJsonSchema(familyNamed(id))));
  hp.command('example <family>')
    .description('a valid unit sheet')
    .option('--layout <id>', 'layout of a family that has several')
    .action((id: string, options: { readonly layout?: string }) => {
      const kind = kindSaid(familyNamed(id), options.layout);
      print(writeUnitSheet(kind.family, kind.sheet.example.name, kind.sheet.example.spec));
    });
  hp.command('predict')
    .description('expected curve, key points and limits at a site')
    .requiredOption('--unit <file>', 'unit sheet')
    .option('--site <file>', 'site file')
    .option('--vacuum <figure>', 'supply vacuum, for instance 60kPa')
    .option('--plan <id>', 'bench or vehicle; the family’s first plan where left out')
    .action(predict);
  hp.command('simulate')
    .description('a bench log of the stand-in rig running a step')
    .requiredOption('--unit <file>', 'unit sheet')
    .requiredOption('--step <id>', 'step to run')
    .option('--plan <id>', 'bench or vehicle; the first plan that has the step where left out')
    .option('--fault <id[:severity]>', 'fault of the unit, severity 0 to 1')
    .option('--seed <n>', 'seed of the bench', '1')
    .option('--site <file>', 'site file')
    .option(
      '--as <what>',
      'bench-log, or scan-tool: its own names, units and signs, for the column mapper',
      'bench-log',
    )
    .requiredOption('--out <file>', 'log to write')
    .action(simulate);
  hp.command('plan <file>')
    .description('who does what on which bench: least is late, and then most is done early')
    .action((file: string) => {
      const { day, offset } = orFail(readDay(readText(file), file));
      print(writeDayPlan(planDay(day), { now: day.now, offset }));
    });
  withEvidence(hp.command('evaluate [step=log...]')).description('evaluates bench logs and readings').action(evaluate);
  withEvidence(hp.command('diagnose [step=log...]'))
    .description('ranks what may be the matter, and names the next best test')
    .option('--explain', 'the whole ledger, with what every finding says for and against')
    .action(diagnose);
  for (const command of [hp, ...hp.commands]) command.exitOverride();
  return hp;
}

/** Exit codes: 0 done, 2 unusable input, 1 a defect of ours. */
function main(): number {
  try {
    program().parse();
    return 0;
  } catch (error) {
    if (error instanceof UnusableInput) {
      for (const problem of error.problems) process.stderr.write(`${readProblemText(problem)}\n`);
      return 2;
    }
    // Commander has already said what was wrong with the arguments; asking for help is no error.
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
    return 1;
  }
}

process.exitCode = main();
