import type { Family } from '@/core/contract/family';
import { readFileSync } from 'node:fs';
import { families, findFamily } from '@/core/families';
import type { AnyKind } from '@/core/contract/kind';
import type { ActiveFault } from '@/core/physics/plant';
import type { PlanId, StepContext } from '@/core/procedure/step-context';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { decodeText } from '@/core/formats/decode-text';
import { readBenchLog, standInSource, type Assumption, type Referring } from '@/core/formats/bench-log';
import type { AnalysisProblem } from '@/core/vocabulary/analysis-problem';
import { unnamedGauges } from '@/core/procedure/unnamed-gauges';
import { suspectLog } from '@/core/diagnosis/suspect-log';
import { displayUnits } from '@/core/wording/display';
import { noticeText } from '@/core/wording/log-notice-text';
import { analysisProblemText } from '@/core/wording/problem-text';
import { findChannel } from '@/core/quantities/channels';
import { readReadings } from '@/core/formats/readings';
import { contextAt, readSite, type Site } from '@/core/formats/site-file';
import { checkKind, readUnitSheet, type UnitSheet } from '@/core/formats/unit-sheet';
import type { JudgedStep, StepEvidence } from '@/core/judging/evaluate-unit';
import { couplingsCalled } from '@/core/vocabulary/coupling-words';
import { findUnit, toSi } from '@/core/quantities/measurement-unit';
import type { Trace } from '@/core/traces/trace';
import { fail, orFail } from './failure';

export function readText(file: string): string {
  try {
    return decodeText(readFileSync(file));
  } catch (error) {
    return fail({ code: 'unreadable', file, detail: error instanceof Error ? error.message : String(error) });
  }
}

/** The one family that a shop's word means; said on stderr, for the word is not the exact one. */
function familyCalled(text: string): Family | undefined {
  const called = couplingsCalled(text).filter(({ family }) => family !== null);
  const [one] = called;
  if (called.length !== 1 || one.family === null) return undefined;
  process.stderr.write(`"${text}" is taken as ${one.family}: ${one.means}\n`);
  return findFamily(one.family);
}

export function familyNamed(id: string): Family {
  return (
    findFamily(id) ??
    familyCalled(id) ??
    fail({ code: 'unknown-family', file: 'argument', family: id, known: families.map((f) => f.id) })
  );
}

/** The kind that an argument names; the family's first where none is named. */
export function kindSaid({ id, kinds, toldBy }: Family, value: string | undefined): AnyKind {
  const found = value === undefined ? kinds[0] : kinds.find((kind) => toldBy !== null && kind.value === value);
  if (found) return found;
  const detail =
    toldBy !== null
      ? `"${value}" is none of ${kinds.map((kind) => kind.value).join(', ')}`
      : `${id} units have one layout`;
  return fail({ code: 'bad-argument', argument: '--layout', detail });
}

/** What a kind is called in a listing; nothing where its family has only one. */
export function layoutSaid(kind: AnyKind): { readonly layout?: string } {
  const told = findFamily(kind.family)?.toldBy ?? null;
  return told === null ? {} : { layout: kind.value };
}

export interface UnitAtSite {
  readonly sheet: UnitSheet;
  readonly context: StepContext<unknown>;
}

interface Where {
  readonly date: string;
  /** Plan that was asked for; else the first that has `step`, else the family's first. */
  readonly plan?: string;
  readonly step?: string;
}

export function unitAtSite(unitFile: string, siteFile: string | undefined, where: Where): UnitAtSite {
  const sheet = orFail(readUnitSheet(readText(unitFile), unitFile));
  const site: Site = siteFile === undefined ? {} : orFail(readSite(readText(siteFile), siteFile));
  return { sheet, context: contextAt(sheet, site, where.date, planNamed(sheet.kind, where)) };
}

/** The example of a family where nobody says where it is. */
export function exampleContext(kind: AnyKind, where: Required<Omit<Where, 'step'>>): StepContext<unknown> {
  const sheet = orFail(checkKind(kind, kind.sheet.example.name, kind.sheet.example.spec, 'example'));
  return contextAt(sheet, {}, where.date, planNamed(kind, where));
}

function planNamed(kind: AnyKind, { plan: id, step }: Where): PlanId {
  if (id === undefined)
    return (kind.plans.find((plan) => step !== undefined && plan.steps.includes(step)) ?? kind.plans[0]).id;
  const plan = kind.plans.find((each) => each.id === id);
  return plan?.id ?? fail({ code: 'unknown-plan', plan: id, known: kind.plans.map((each) => each.id) });
}

/** A step that yields characteristics, or a refusal that names what there is. */
export function judgedStep(kind: AnyKind, id: string): JudgedStep {
  const step = kind.steps.find((each) => each.id === id);
  if (!step) return fail({ code: 'unknown-step', step: id, known: kind.steps.map((each) => each.id) });
  return step.kind === 'look' ? fail({ code: 'look-step', step: id }) : step;
}

export function measuredStep(kind: AnyKind, id: string): MeasuredStep<unknown> {
  const step = kind.steps.find((each) => each.id === id);
  if (!step) return fail({ code: 'unknown-step', step: id, known: kind.steps.map((each) => each.id) });
  return step.kind === 'measured' ? step : fail({ code: 'look-step', step: id });
}

/** "id" or "id:0.5" as a fault of the family. */
export function faultArgument(kind: AnyKind, text: string): ActiveFault {
  const [id, severityText] = text.split(':');
  if (!kind.model.faults.some((fault) => fault.id === id))
    return fail({ code: 'unknown-fault', fault: id, known: kind.model.faults.map((fault) => fault.id) });
  const severity = severityText === undefined ? 0.5 : Number(severityText);
  if (!(severity >= 0 && severity <= 1) || severityText === '')
    return fail({
      code: 'bad-argument',
      argument: '--fault',
      detail: `severity "${severityText}" is not between 0 and 1`,
    });
  return { id, severity };
}

/** Ids of symptoms of a kind. */
export function symptomArguments(kind: AnyKind, ids: readonly string[]): readonly string[] {
  const known = kind.symptoms.map((symptom) => symptom.id);
  for (const id of ids)
    if (!known.includes(id))
      fail({ code: 'bad-argument', argument: '--symptom', detail: `"${id}" is none of ${known.join(', ')}` });
  return ids;
}

/** "60kPa" or "18 inHg" as Pa vacuum. */
export function vacuumArgument(text: string): number {
  const [, figure, unitText] = text.length > 60 ? [] : (/^([\d.]+)\s*(\S.*)$/.exec(text.trim()) ?? []);
  const unit = unitText === undefined ? undefined : findUnit(unitText);
  const value = Number(figure);
  if (!unit || unit.dimension !== 'pressure' || !(value > 0))
    return fail({ code: 'bad-argument', argument: '--vacuum', detail: `"${text}" is not a vacuum such as 60kPa` });
  return toSi(value, unit);
}

/** "step=file" arguments as evidence; "step#2=file" is a repeat. */
export function logEvidence(
  kind: AnyKind,
  assignments: readonly string[],
  referring: Referring & { readonly context: StepContext<unknown> },
): StepEvidence[] {
  const byStep = new Map<string, { traces: Trace[]; date?: string; swapped: boolean; said: AnalysisProblem[] }>();
  for (const assignment of assignments) {
    const at = assignment.indexOf('=');
    if (at < 1) fail({ code: 'bad-argument', argument: assignment, detail: 'write step=file.csv' });
    const name = assignment.slice(0, at);
    const file = assignment.slice(at + 1);
    const [, id] = /^([a-z-]+)(?:#\d+)?$/.exec(name) ?? [];
    const step = measuredStep(kind, id ?? name);
    const log = orFail(readBenchLog(readText(file), file, { step: step.id, ...step.feeds.log }, referring));
    if (log.repeatedTimes > 0) process.stderr.write(`${file}: ${log.repeatedTimes} rows repeat a time stamp; kept\n`);
    if (log.repeatedHeaders > 0)
      process.stderr.write(
        `${file}: the header stands in it ${log.repeatedHeaders} times more; those rows are left out\n`,
      );
    for (const { column, what, times } of log.noticed)
      process.stderr.write(`${file}: ${noticeText[what](log.headers[column], times)}\n`);
    const swapped = log.metadata.gauges === 'swapped';
    const suspected = suspectLog(kind, step, log.trace, referring.context);
    const unnamed = log.metadata.source === standInSource ? [] : unnamedGauges(step, log.trace, referring.context);
    const said = [...log.turned, ...suspected, ...unnamed];
    for (const each of said) process.stderr.write(`${file}: ${analysisProblemText(each, displayUnits('kpa'))}\n`);
    const entry = byStep.get(step.id) ?? { traces: [], swapped, said: [] };
    entry.said.push(...said);
    if (entry.swapped !== swapped) fail({ code: 'mixed-gauges', file, step: step.id });
    entry.traces.push(log.trace);
    const recorded = log.metadata.recorded?.slice(0, 10);
    byStep.set(step.id, { ...entry, date: recorded && /^\d{4}-\d{2}-\d{2}$/.test(recorded) ? recorded : entry.date });
  }
  return [...byStep].map(([step, { traces, date, said }]) => ({
    kind: 'traces',
    step,
    traces,
    said,
    setting: date === undefined ? {} : { date },
  }));
}

const assumptions: readonly Assumption[] = ['absolute', 'vacuum', 'gauge', 'negative'];

/** "supply_vacuum=absolute" arguments, by channel. */
export function assumed(texts: readonly string[]): ReadonlyMap<string, Assumption> {
  return new Map(
    texts.map((text) => {
      const [channel, as] = text.split('=');
      const assumption = assumptions.find((each) => each === as);
      if (!findChannel(channel) || !assumption)
        return fail({
          code: 'bad-argument',
          argument: '--assume',
          detail: `"${text}" is not a channel with ${assumptions.join(', ')}, for instance supply_vacuum=absolute`,
        });
      return [channel, assumption] as const;
    }),
  );
}

/** A readings table as evidence. */
export function readingEvidence(kind: AnyKind, file: string, context: StepContext<unknown>): StepEvidence[] {
  const { typed, dials, findings } = orFail(readReadings(readText(file), file, kind, context));
  return [
    ...[...typed].map(([step, values]): StepEvidence => ({ kind: 'typed', step, values })),
    ...[...dials].map(([step, readings]): StepEvidence => ({ kind: 'mixed', step, given: [{ readings }] })),
    ...[...findings].map(([step, found]): StepEvidence => ({ kind: 'findings', step, findings: found })),
  ];
}
