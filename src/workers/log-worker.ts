import { findFamily } from '@/core/families';
import type { StepContext } from '@/core/procedure/step-context';
import { applyMapping, rowProblems, mappingInTodaysNames, type LogNeeds } from '@/core/formats/column-mapping';
import { standInSource } from '@/core/formats/bench-log';
import { guessMapping, headerFingerprint, isCalled } from '@/core/formats/guess-mapping';
import { isRowProblem } from '@/core/vocabulary/read-problem';
import { decodeText } from '@/core/formats/decode-text';
import { questionedChannels } from '@/core/formats/questioned-channels';
import { readRawLog, type RawLog } from '@/core/formats/raw-log';
import { contextAt } from '@/core/formats/site-file';
import { checkSpec } from '@/core/formats/unit-sheet';
import type { AnyKind } from '@/core/contract/kind';
import { answeredBy } from '@/core/contract/one-log';
import { timelinePart } from '@/core/pictures/timeline-window';
import { pictureOf, type TimelineLane } from '@/core/procedure/picture';
import { evaluateStep, type JudgedStep, type StepEvaluation } from '@/core/judging/evaluate-unit';
import { unnamedGauges } from '@/core/procedure/unnamed-gauges';
import { suspectLog } from '@/core/diagnosis/suspect-log';
import { saying } from '@/core/procedure/question';
import type { DecisionPolicy } from '@/core/vocabulary/verdict';
import { thinned } from '@/core/traces/decimate';
import { packFrame } from '@/core/traces/frame';
import { sliceTrace, type Trace } from '@/core/traces/trace';
import type { LogAnswer, LogRequest } from './log-messages';

/*
 * Reads and judges a log file away from the page, so that a million rows do not freeze it. The page ends the worker to
 * cancel.
 */

const say = (answer: LogAnswer, transfer: Transferable[] = []) =>
  (self as unknown as { postMessage(message: LogAnswer, transfer: Transferable[]): void }).postMessage(
    answer,
    transfer,
  );

interface Opened {
  readonly raw: RawLog;
  readonly kind: AnyKind;
  readonly step: JudgedStep & { readonly kind: 'measured' };
  readonly context: StepContext<unknown>;
  readonly needs: LogNeeds;
  readonly policy: DecisionPolicy;
}

let opened: Opened | null = null;
let trace: Trace | null = null;
let lanes: readonly TimelineLane[] = [];

const previewPoints = 700;
/** Samples in one part that is sent to the server. */
const partSamples = 12_000;
/** Problems that are listed; all are counted. */
const listedProblems = 50;

const isStandIn = ({ metadata }: RawLog) => metadata.source === standInSource;

async function open(request: Extract<LogRequest, { kind: 'open' }>): Promise<void> {
  const family = findFamily(request.job.sheet.family);
  const checked = family && checkSpec(family, request.job.sheet.name, request.job.sheet.spec, 'sheet');
  // Of the sheet's own layout: its steps share names with those of others.
  const step = checked?.ok ? checked.value.kind.steps.find((each) => each.id === request.step) : undefined;
  if (!checked?.ok || step?.kind !== 'measured') throw new Error('this step takes no log');
  const text = decodeText(await request.file.arrayBuffer());
  let told = 0;
  const read = readRawLog(text, request.file.name, (share) => {
    if (share - told < 0.02) return;
    told = share;
    say({ kind: 'progress', share });
  });
  if (!read.ok) return say({ kind: 'unusable', problems: read.problems, count: read.problems.length });
  const context = {
    ...contextAt(checked.value, request.site, request.date, request.job.plan),
    corrections: request.corrections,
  };
  const needs = {
    step: step.id,
    needs: step.feeds.log.needs,
    leastRows: step.feeds.log.leastRows,
    anyOf: step.feeds.log.anyOf,
    named: step.feeds.log.named,
  };
  opened = { raw: read.value, kind: checked.value.kind, step, context, needs, policy: request.policy };
  const { rate } = step.feeds.live ?? {};
  const inHours = rate !== undefined && rate < 1;
  const guesses = guessMapping(
    read.value,
    [...step.feeds.log.needs, ...step.feeds.log.uses],
    context.ambient.pressure,
    inHours,
  );
  const named = mappingInTodaysNames(
    step.feeds.log,
    guesses.map((guess) => guess.mapped),
  );
  const { headers, rows, repeatedHeaders, noticed, metadata } = read.value;
  const standIn = isStandIn(read.value);
  say({
    kind: 'opened',
    headers,
    fingerprint: headerFingerprint(headers),
    standIn,
    rows,
    repeatedHeaders,
    noticed,
    said: (step.feeds.log.named && metadata[step.feeds.log.named.key]?.trim().toLowerCase()) ?? null,
    guesses: guesses.map((guess, at) => ({ ...guess, mapped: named[at] })),
  });
}

function judge({ mapping, leaveOut, said }: Extract<LogRequest, { kind: 'judge' }>): void {
  if (!opened) return;
  const { kind, step, context, needs, policy } = opened;
  const key = step.feeds.log.named?.key;
  const raw =
    said === null || key === undefined
      ? opened.raw
      : { ...opened.raw, metadata: { ...opened.raw.metadata, [key]: said } };
  const mapped = applyMapping(raw, mapping, needs, { ambient: context.ambient.pressure, leaveOut });
  if (!mapped.ok) {
    const [first] = mapped.problems;
    const byLine = isRowProblem(first) ? rowProblems(raw, mapping, needs) : mapped.problems;
    return say({ kind: 'unusable', problems: byLine.slice(0, listedProblems), count: byLine.length });
  }
  trace = mapped.value.trace;
  const analysis = step.analyse(trace, context);
  const suspected = [
    ...suspectLog(kind, step, trace, context),
    ...(isStandIn(opened.raw) ? [] : unnamedGauges(step, trace, context)),
  ];
  const result = evaluateStep(kind, step, [{ analysed: () => saying(analysis, suspected) }], { context, policy });
  const { leftOut, repeatedTimes } = mapped.value;
  const called = new Set(
    mapping.flatMap((each, at) =>
      each.use === 'channel' && isCalled(raw.headers[at], each.channel) ? [each.channel] : [],
    ),
  );
  const questioned = questionedChannels(trace, context.ambient.pressure, called);
  const preview = packFrame(thinned(trace, previewPoints)).buffer;
  lanes = pictureOf(step.pictures, 'timeline')?.lanes(trace, context) ?? [];
  const timeline = timelinePart(lanes, null);
  const others = othersOf(opened, trace);
  say({ kind: 'judged', result, others, timeline, preview, leftOut, repeatedTimes, questioned, called: [...called] }, [
    preview,
  ]);
}

/** What a log comes to for the other steps that it answers. */
function othersOf({ kind, step, context, policy }: Opened, read: Trace): StepEvaluation[] {
  return answeredBy(kind, context.plan, step.id).flatMap((id) => {
    const other = kind.steps.find((each) => each.id === id);
    if (id === step.id || other?.kind !== 'measured') return [];
    return [evaluateStep(kind, other, [{ analysed: () => other.analyse(read, context) }], { context, policy })];
  });
}

function part(from: number): void {
  if (!trace) return;
  const to = Math.min(trace.time.length, from + partSamples);
  const bytes = packFrame(sliceTrace(trace, from, to)).buffer;
  say({ kind: 'part', bytes, next: to < trace.time.length ? to : null }, [bytes]);
}

/** A file that has gone, or is larger than a text can be. */
function unreadable(file: string, error: unknown): void {
  const detail = error instanceof Error ? error.message : String(error);
  say({ kind: 'unusable', problems: [{ code: 'unreadable', file, detail }], count: 1 });
}

self.onmessage = ({ data }: MessageEvent<LogRequest>) => {
  switch (data.kind) {
    case 'open':
      return void open(data).catch((error: unknown) => unreadable(data.file.name, error));
    case 'judge':
      return judge(data);
    case 'window': {
      const timeline = timelinePart(lanes, data.window);
      return timeline ? say({ kind: 'window', timeline }) : undefined;
    }
    case 'part':
      return part(data.from);
  }
};
