'use client';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import type { Site } from '@/core/formats/site-file';
import { onwardFrom } from './onward';
import { entryOf } from '@/core/dials/characteristic-entry';
import type { JudgedStep } from '@/core/judging/evaluate-unit';
import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import type { DecisionPolicy } from '@/core/vocabulary/verdict';
import type { CautionId } from '@/core/vocabulary/caution-id';
import { figure, referenceOf, shownUnit } from '@/core/wording/display';
import type { JobView } from '@/server/views/job-view';
import { Choice } from '@/ui/parts/choice';
import { Key } from '@/ui/parts/key';
import { OverdueNote } from '@/ui/parts/overdue-note';
import { Refused, send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import { BenchHead } from './bench-head';
import { LookUpTable } from './look-up-table';
import { CautionList } from './caution-list';
import { ShutNotice, useShut } from './shut-notice';
import { StepList } from './step-list';
import { StepResults } from './step-results';
import { useBenchContext } from './use-bench-context';
import { useKeyActions } from './use-key-actions';
import { useTypedReadings, type TypedRow } from './use-typed-readings';
import { WaysToFeed } from './ways-to-feed';
import styles from './bench.module.css';

interface Props {
  readonly view: JobView;
  readonly step: string;
  readonly site: Site;
  readonly date: string;
  readonly air: string;
  /** How the workshop decides: what is shown while typing is what will be kept. */
  readonly policy: DecisionPolicy;
}

/** A step read off dials: Enter moves on, every figure is understood, held against its band and judged as it is typed. */
export function TypedBench({ view, step: stepId, site, date, air, policy }: Props) {
  const router = useRouter();
  const { person, units } = useShop();
  const { kind, context } = useBenchContext(view, stepId, site, date);
  const step = kind.steps.find((each) => each.id === stepId) as JudgedStep;
  const typed = useTypedReadings(kind, step, context, {
    draftKey: `hard-pedal-readings-${view.job.id}-${stepId}`,
    units,
    policy,
  });
  const table = entryOf(step).table?.(context, typed.values);
  const inputs = useRef(new Map<string, HTMLInputElement>());
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const locked = useShut(view, stepId);
  const unread = step.cautions.filter((id) => !view.cautions.some((each) => each.caution === id));
  const kept = view.steps.find((each) => each.id === stepId)?.runs.filter((run) => run.ofThisRound).length ?? 0;
  const { hrefOnceKept } = onwardFrom(view, stepId);

  const attempt = async (work: () => Promise<void>) => {
    if (busy) return;
    setBusy(true);
    setTrouble('');
    try {
      await work();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
      if (error instanceof Refused) inputs.current.get(Object.keys(error.fields)[0] ?? '')?.focus();
    }
    setBusy(false);
  };
  const acknowledge = () =>
    attempt(async () => {
      await send(`/api/jobs/${view.job.id}/cautions`, { cautions: unread, person });
      router.refresh();
    });
  const keep = () =>
    attempt(async () => {
      const wrong = typed.rows.find((row) => row.read.kind !== 'figure' && row.read.kind !== 'empty');
      if (wrong) {
        inputs.current.get(wrong.field.id)?.focus();
        throw new Error(`${wrong.field.title} cannot be read: ${problemText(wrong)}`);
      }
      const doubtful = typed.rows.find((row) => row.questioned || (row.read.kind === 'figure' && row.read.either));
      if (doubtful) {
        inputs.current.get(doubtful.field.id)?.focus();
        throw new Error(`${doubtful.field.title}: answer the question beside it first.`);
      }
      const { values: readings, standIn, confirmed } = typed;
      await send(`/api/jobs/${view.job.id}/readings`, { step: stepId, readings, person, standIn, confirmed });
      typed.clear();
      router.push(hrefOnceKept);
      router.refresh();
    });
  const takeStandIn = () =>
    attempt(async () => {
      const response = await fetch(`/api/jobs/${view.job.id}/readings?step=${stepId}`);
      if (!response.ok) throw new Error('The stand-in does not answer.');
      const readings = (await response.json()) as Readonly<Record<string, number>>;
      // One write: each would begin from what was stored before the first.
      typed.fillFromStandIn(
        Object.fromEntries(
          typed.rows.flatMap(({ field }) => {
            const value = readings[field.id];
            if (value === undefined) return [];
            const unit = shownUnit(field.as, units);
            if (field.choices) return [[field.id, String(value)]];
            return [[field.id, `${fromSi(value, unit).toFixed(decimalsOf(field.channel, unit))} ${unit.symbol}`]];
          }),
        ),
      );
    });

  const primary = locked
    ? { title: locked.action.title, run: locked.action.run }
    : unread.length > 0
      ? { title: 'I have read these', run: () => void acknowledge() }
      : { title: 'Keep these readings', run: () => void keep() };
  useKeyActions({
    primary: locked || unread.length > 0 ? primary.run : null,
    secondary: null,
    again: null,
    stop: null,
    back: () => router.push(`/jobs/${view.job.id}`),
  });

  const onward = (at: number) => {
    const next = typed.rows[at + 1];
    if (next) inputs.current.get(next.field.id)?.focus();
    else void keep();
  };

  return (
    <div className={styles.bench}>
      <BenchHead view={view} air={air} />
      <StepList view={view} current={stepId} />
      <main className={styles.work}>
        <h1>
          {locked
            ? `${step.title} is shut`
            : unread.length > 0
              ? 'Read these first'
              : `${step.title}: type what the dials show`}
        </h1>
        <p className={styles.why}>{step.why}</p>
        {locked ? (
          <ShutNotice shut={locked.shut} />
        ) : unread.length > 0 ? (
          <CautionList ids={unread as readonly CautionId[]} />
        ) : (
          <div className={styles.grid}>
            {typed.rows.map((row, at) => (
              <div key={row.field.id} className={styles.gridRow}>
                <label htmlFor={`reading-${row.field.id}`}>
                  {row.field.title}
                  {row.field.optional && <em> if read</em>}
                  {row.field.hint && <small>{row.field.hint}</small>}
                </label>
                <span>
                  {row.field.choices ? (
                    choiceOf(row)
                  ) : (
                    <input
                      id={`reading-${row.field.id}`}
                      ref={(element) => {
                        if (element) inputs.current.set(row.field.id, element);
                        else inputs.current.delete(row.field.id);
                      }}
                      value={row.text}
                      autoComplete="off"
                      inputMode="decimal"
                      placeholder={shownUnit(row.field.as, units).symbol}
                      maxLength={60}
                      aria-describedby={`said-${row.field.id}`}
                      aria-invalid={problemText(row) !== '' || row.questioned || asked(row)}
                      onChange={(event) => typed.type(row.field.id, event.target.value)}
                      onKeyDown={(event) => {
                        if (event.key !== 'Enter') return;
                        event.preventDefault();
                        onward(at);
                      }}
                    />
                  )}
                </span>
                <span id={`said-${row.field.id}`} className={styles.said}>
                  {understood(row)}
                  {questionOf(row)}
                </span>
                <span className={styles.expected}>{expectedText(row)}</span>
              </div>
            ))}
            {table && <LookUpTable table={table} units={units} />}
          </div>
        )}
      </main>
      <aside className={styles.side} aria-label="What it comes to">
        <WaysToFeed view={view} step={step} current="dial" />
        <OverdueNote overdue={view.overdue.filter((each) => each.steps.includes(stepId))} />
        {typed.result ? (
          <StepResults result={typed.result} units={units} heading="So far" />
        ) : (
          <p className={styles.note}>
            {kept > 0
              ? `Kept ${kept} time${kept > 1 ? 's' : ''} already: what is typed now counts as a repeat.`
              : 'The reading, its uncertainty and its limit appear here as you type.'}
          </p>
        )}
      </aside>
      {trouble && (
        <p className={styles.trouble} role="alert">
          {trouble}
        </p>
      )}
      <footer className={styles.foot}>
        <Button className={styles.primary} variant="contained" color="primary" onClick={primary.run} disabled={busy}>
          {primary.title} <Key>Enter</Key>
        </Button>
        {!locked && unread.length === 0 && step.kind === 'typed' && (
          <Button onClick={() => void takeStandIn()} disabled={busy}>
            Read the stand-in’s gauge
          </Button>
        )}
        {table && !locked && unread.length === 0 && <Button onClick={() => window.print()}>Print the table</Button>}
        <div className={styles.spring} />
        <p>Type a unit if the dial has another: 14 inHg, 0.7 bar</p>
      </footer>
    </div>
  );

  /** A word to choose instead of a figure to type. */
  function choiceOf({ field, text }: TypedRow) {
    return (
      <Choice
        id={`reading-${field.id}`}
        className={styles.choice}
        value={text}
        describedBy={`said-${field.id}`}
        onChange={(chosen) => typed.type(field.id, chosen)}
      >
        <option value="">choose</option>
        {field.choices?.map((title, at) => (
          <option key={title} value={String(at)}>
            {title}
          </option>
        ))}
      </Choice>
    );
  }

  /** Decimals that a channel's gauge can be read to. */
  function decimalsOf(channel: string | null, unit: MeasurementUnit): number {
    const resolution = (channel && context.instruments.get(channel)?.resolution) || 0;
    return resolution > 0 ? Math.max(0, Math.ceil(-Math.log10(resolution / unit.factor))) : 3;
  }

  /** What a figure is asked about, once, beside its field. */
  function questionOf({ field, read, questioned }: TypedRow) {
    if (read.kind === 'figure' && read.either)
      return (
        <>
          {read.either.map((text) => (
            <Button key={text} size="small" className={styles.answer} onClick={() => typed.type(field.id, text)}>
              it is {text.trim()}
            </Button>
          ))}
        </>
      );
    return questioned ? (
      <Button size="small" className={styles.answer} onClick={() => typed.confirm(field.id)}>
        it is so
      </Button>
    ) : null;
  }

  function understood(row: TypedRow): string {
    const problem = problemText(row);
    if (problem) return problem;
    if (row.read.kind !== 'figure') return '';
    if (row.field.choices) return row.field.choices[row.read.value] ?? '';
    const unit = shownUnit(row.field.as, units);
    const reference = referenceOf(row.field.as);
    const inferred = { absolute: ', read as absolute', 'negative-gauge': ', read as negative gauge' };
    // As many figures as were typed, not as many as an uncertainty would carry.
    const shown = String(Number(fromSi(row.read.value, unit).toPrecision(4)));
    const said = `${shown} ${unit.symbol === '1' ? '' : unit.symbol} ${reference}`.trim();
    const how = row.read.inferred ? inferred[row.read.inferred] : '';
    if (row.questioned) return `${said}${how}? Hardly: look again.`;
    return row.confirmed ? `${said}${how}, looked at again` : `${said}${how}`;
  }

  function expectedText({ field }: TypedRow): string {
    if (!field.expected) return '';
    if (field.choices) return `sheet: ${(field.choices[field.expected.low] ?? '').toLowerCase()}`;
    const unit = shownUnit(field.as, units);
    const { low, high } = field.expected;
    const symbol = unit.symbol === '1' ? '' : ` ${unit.symbol}`;
    if (field.toHold) return `hold at about ${figure((low + high) / 2, unit)}${symbol}`;
    if (!Number.isFinite(low)) return `sound: up to ${figure(high, unit)}${symbol}`;
    if (!Number.isFinite(high)) return `sound: from ${figure(low, unit)}${symbol}`;
    return `sound: ${figure(low, unit)} to ${figure(high, unit)}${symbol}`;
  }
}

function asked({ read }: TypedRow): boolean {
  return read.kind === 'figure' && read.either !== null;
}

const orList = (all: readonly string[]): string =>
  all.length < 2 ? all.join() : `${all.slice(0, -1).join(', ')} or ${all.at(-1)}`;

function problemText({ read }: TypedRow): string {
  switch (read.kind) {
    case 'not-a-figure':
      return `“${read.text}” is not a figure`;
    case 'unknown-unit':
      return `the unit “${read.unit}” is not known; it may be ${orList(read.accepted)}`;
    case 'wrong-unit':
      return `“${read.unit}” does not measure this; it may be ${orList(read.accepted)}`;
    case 'empty':
    case 'figure':
      return '';
  }
}
