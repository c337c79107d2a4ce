'use client';
import Button from '@mui/material/Button';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { Site } from '@/core/formats/site-file';
import { onwardFrom } from './onward';
import { entryOf, notReadByHand } from '@/core/dials/characteristic-entry';
import type { JudgedStep } from '@/core/judging/evaluate-unit';
import { fromSi } from '@/core/quantities/measurement-unit';
import type { DecisionPolicy } from '@/core/vocabulary/verdict';
import type { CautionId } from '@/core/vocabulary/caution-id';
import { channelTitle } from '@/core/quantities/channels';
import { shownUnit } from '@/core/wording/display';
import { notByHandText } from '@/core/wording/not-by-hand-text';
import type { JobView } from '@/server/views/job-view';
import { Key } from '@/ui/parts/key';
import { OverdueNote } from '@/ui/parts/overdue-note';
import { Refused, send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import { BenchHead } from './bench-head';
import { LookUpTable } from './look-up-table';
import { CautionList } from './caution-list';
import { ReadingInput, ReadingQuestion } from './reading-input';
import { ReadingTable } from './reading-table';
import { asked, decimalsOf, expectedText, problemText, readWith, sumText, understood } from './reading-words';
import { useRowsPicture } from './use-rows-picture';
import { Chart } from '@/ui/charts/chart';
import { ShutNotice, useShut } from './shut-notice';
import { StepList } from './step-list';
import { StepResults } from './step-results';
import { useBenchContext } from './use-bench-context';
import { useKeyActions } from './use-key-actions';
import { useTypedReadings, type TypedRow } from './use-typed-readings';
import { WaysToFeed } from './ways-to-feed';
import { Worksheet } from './worksheet';
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
  const entry = useMemo(() => entryOf(step), [step]);
  const table = entry.table?.(context, typed.values);
  const terms = entry.terms?.(context);
  const picture = useRowsPicture({ entry, context, values: typed.values, units });
  const once = typed.rows.filter(({ field }) => !field.row);
  const rows = typed.rows.filter(({ field }) => field.row);
  const unreadByHand = notReadByHand(step);
  const inputs = useRef(new Map<string, HTMLInputElement>());
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const [onPaper, setOnPaper] = useState(false);
  const locked = useShut(view, stepId);
  const unread = step.cautions.filter((id) => !view.cautions.some((each) => each.caution === id));
  const kept = view.steps.find((each) => each.id === stepId)?.runs.filter((run) => run.ofThisRound).length ?? 0;
  const { hrefOnceKept } = onwardFrom(view, stepId);

  /** The worksheet is there only while it is printed. */
  const printWorksheet = () => {
    flushSync(() => setOnPaper(true));
    window.addEventListener('afterprint', () => setOnPaper(false), { once: true });
    window.print();
  };

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
      const doubtful = typed.rows.find((row) => row.questioned || asked(row));
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
            return [
              [field.id, `${fromSi(value, unit).toFixed(decimalsOf(field.channel, unit, context))} ${unit.symbol}`],
            ];
          }),
        ),
      );
    });

  const needs = step.kind === 'measured' ? step.feeds.log.needs : [];
  const live = step.kind === 'measured' && step.feeds.live !== undefined;
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

  const hold = (id: string, element: HTMLInputElement | null) => {
    if (element) inputs.current.set(id, element);
    else inputs.current.delete(id);
  };
  /** To the next field that is typed; from a line of the table that was not begun, or from the last field, to keeping all. */
  const onward = (from: TypedRow) => {
    const at = typed.rows.indexOf(from);
    const line = from.field.row?.at;
    const empty = line !== undefined && rows.every(({ field, text }) => field.row?.at !== line || text === '');
    const next = typed.rows.slice(at + 1).find(({ field }) => inputs.current.has(field.id));
    if (next && !(empty && from.field.optional)) inputs.current.get(next.field.id)?.focus();
    else void keep();
  };

  if (unreadByHand)
    return (
      <div className={styles.bench}>
        <BenchHead view={view} air={air} />
        <StepList view={view} current={stepId} />
        <main className={styles.work}>
          <h1>{step.title}: nobody reads this by hand</h1>
          <p className={styles.why}>{step.why}</p>
          <div className={styles.unread}>
            <p>{notByHandText(unreadByHand, live)}</p>
            {needs.length > 0 && (
              <>
                <h2>A log of it has</h2>
                <ul>
                  {needs.map((channel) => (
                    <li key={channel}>{channelTitle(channel)}</li>
                  ))}
                </ul>
              </>
            )}
          </div>
        </main>
        <aside className={styles.side} aria-label="How it is read instead">
          <WaysToFeed view={view} step={step} current="dial" />
        </aside>
        <footer className={styles.foot}>
          <Button
            className={styles.primary}
            variant="contained"
            color="primary"
            component={Link}
            href={`/jobs/${view.job.id}/bench/${stepId}${live ? '' : '?by=log'}`}
          >
            {live ? 'Run it on the bench' : 'Bring a log'}
          </Button>
        </footer>
      </div>
    );
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
              : `${step.title}: type what you read`}
        </h1>
        <p className={styles.why}>{step.why}</p>
        {locked ? (
          <ShutNotice shut={locked.shut} />
        ) : unread.length > 0 ? (
          <CautionList ids={unread as readonly CautionId[]} />
        ) : (
          <div className={styles.grid}>
            {once.map((row) => (
              <div key={row.field.id} className={styles.gridRow}>
                <label htmlFor={`reading-${row.field.id}`}>
                  {row.field.title}
                  {row.field.optional && !row.field.choices && <em> if read</em>}
                  {row.field.hint && <small>{row.field.hint}</small>}
                </label>
                <span>
                  <ReadingInput
                    row={row}
                    units={units}
                    hold={(element) => hold(row.field.id, element)}
                    type={(text) => typed.type(row.field.id, text)}
                    onEnter={() => onward(row)}
                  />
                </span>
                <span id={`said-${row.field.id}`} className={styles.said}>
                  {understood(row, units)}
                  <ReadingQuestion
                    row={row}
                    type={(text) => typed.type(row.field.id, text)}
                    confirm={() => typed.confirm(row.field.id)}
                  />
                </span>
                <span className={styles.expected}>
                  {[expectedText(row, units), readWith(row)].filter(Boolean).join(' · ')}
                </span>
              </div>
            ))}
            {rows.length > 0 && (
              <div className={styles.byRows}>
                <ReadingTable
                  rows={rows}
                  typed={typed}
                  units={units}
                  drawn={picture !== null}
                  hold={hold}
                  onEnter={onward}
                />
                {picture && <Chart option={picture.option} text={picture.text} className={styles.rowsChart} />}
              </div>
            )}
            {table && <LookUpTable table={table} units={units} />}
          </div>
        )}
      </main>
      <aside className={styles.side} aria-label="What it comes to">
        <WaysToFeed view={view} step={step} current="dial" />
        <OverdueNote overdue={view.overdue.filter((each) => each.steps.includes(stepId))} />
        {typed.result ? (
          <StepResults
            result={typed.result}
            units={units}
            heading="So far"
            worked={(id) => sumText(terms?.[id], typed.rows, units)}
          />
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
      {onPaper && <Worksheet view={view} step={step} air={air} rows={typed.rows} units={units} />}
      <footer className={styles.foot}>
        <Button className={styles.primary} variant="contained" color="primary" onClick={primary.run} disabled={busy}>
          {primary.title} <Key>Enter</Key>
        </Button>
        {!locked && unread.length === 0 && step.kind === 'typed' && (
          <Button onClick={() => void takeStandIn()} disabled={busy}>
            Read the stand-in’s gauge
          </Button>
        )}
        {!locked && unread.length === 0 && (
          <Button onClick={table ? () => window.print() : printWorksheet}>
            {table ? 'Print the table' : 'Print a worksheet'}
          </Button>
        )}
        <div className={styles.spring} />
        <p>Type a unit if the dial has another: 14 inHg, 0.7 bar</p>
      </footer>
    </div>
  );
}
