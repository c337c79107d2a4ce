'use client';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { onwardFrom } from './onward';
import type { Site } from '@/core/formats/site-file';
import type { DecisionPolicy } from '@/core/vocabulary/verdict';
import type { CautionId } from '@/core/vocabulary/caution-id';
import { readProblemText } from '@/core/wording/read-problem-text';
import type { JobView } from '@/server/views/job-view';
import { Key } from '@/ui/parts/key';
import { ask, send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import { BenchHead } from './bench-head';
import { keptLogOf } from './kept-log';
import { KeptTimeline } from './kept-timeline';
import { asksFor, sizeOf } from './log-words';
import { MappedLog } from './mapped-log';
import { OtherAnswers } from './other-answers';
import { CautionList } from './caution-list';
import { ProblemList } from './problem-list';
import { ShutNotice, useShut } from './shut-notice';
import { StepList } from './step-list';
import { StepResults } from './step-results';
import { useBenchContext } from './use-bench-context';
import { useKeyActions } from './use-key-actions';
import { useLogPicture } from './use-log-picture';
import { useLogQuestions } from './use-log-questions';
import { useLogWorker } from './use-log-worker';
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

/** A step fed from a log file: columns guessed, shown over a preview, judged at once, remembered by the file's header. */
export function LogBench({ view, step: stepId, site, date, air, policy }: Props) {
  const router = useRouter();
  const { person, units } = useShop();
  const bench = useBenchContext(view, stepId, site, date);
  const { kind, context } = bench;
  const kept = keptLogOf(view, stepId);
  const [driving, setDriving] = useState(false);
  const step = kind.steps.find((each) => each.id === stepId) as MeasuredStep<unknown>;
  const setting = useMemo(
    () => ({
      job: { sheet: view.job.sheet, plan: view.job.plan },
      step: stepId,
      site,
      date,
      corrections: context.corrections,
      policy,
    }),
    [view.job, stepId, site, date, context.corrections, policy],
  );
  const log = useLogWorker(setting, step.feeds.log);
  const { state } = log;
  const [input, setInput] = useState<HTMLInputElement | null>(null);
  const [trouble, setTrouble] = useState('');
  const locked = useShut(view, stepId);
  const unread = step.cautions.filter((id) => !view.cautions.some((each) => each.caution === id));
  const onward = onwardFrom(view, stepId);
  const judged = state.kind === 'mapped' ? state.judged : null;

  const picture = useLogPicture(bench, step, state);
  const questions = useLogQuestions(state);

  const attempt = async (work: () => Promise<void>) => {
    setTrouble('');
    try {
      await work();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  const acknowledge = () =>
    attempt(async () => {
      await send(`/api/jobs/${view.job.id}/cautions`, { cautions: unread, person });
      router.refresh();
    });
  /** The stand-in’s own log, brought as any other. */
  const takeStandIn = () =>
    attempt(async () => {
      setDriving(true);
      try {
        const { log: text } = await ask<{ log: string }>(`/api/jobs/${view.job.id}/stand-in-log?step=${stepId}`);
        log.open(new File([text], 'stand-in-drive.csv', { type: 'text/csv' }));
      } finally {
        setDriving(false);
      }
    });
  const keep = () =>
    attempt(async () => {
      if (questions.open.length > 0) throw new Error('Answer first what is asked about its columns.');
      await log.keep({ jobId: view.job.id, step: stepId, person });
      router.push(onward.hrefOnceKept);
      router.refresh();
    });
  const primary = primaryNow();
  useKeyActions({
    primary: primary?.run ?? null,
    secondary: null,
    again: null,
    stop: null,
    back: () => router.push(`/jobs/${view.job.id}`),
  });

  function primaryNow(): { readonly title: string; readonly run: () => void } | null {
    if (locked) return locked.action;
    if (unread.length > 0) return { title: 'I have read these', run: () => void acknowledge() };
    switch (state.kind) {
      case 'empty':
      case 'unusable':
        return {
          title: kept && state.kind === 'empty' ? 'Bring another log' : 'Choose a log file',
          run: () => input?.click(),
        };
      case 'mapped':
        return state.judged ? { title: 'Keep this log', run: () => void keep() } : null;
      case 'reading':
      case 'sending':
        return null;
    }
  }

  return (
    <div className={styles.bench}>
      <BenchHead view={view} air={air} />
      <StepList view={view} current={stepId} />
      <main className={styles.work}>
        <h1>{locked ? `${step.title} is shut` : headline()}</h1>
        <p className={styles.why}>{step.why}</p>
        {locked ? (
          <ShutNotice shut={locked.shut} />
        ) : unread.length > 0 ? (
          <CautionList ids={unread as readonly CautionId[]} />
        ) : (
          body()
        )}
      </main>
      <aside className={styles.side} aria-label="What it comes to">
        <WaysToFeed view={view} step={step} current="log" />
        {judged && questions.open.length > 0 ? (
          // No verdict of a log whose unit or reference somebody has still to say.
          <p className={styles.note}>
            What it comes to hangs on what is asked about its columns: answer that, and it is judged.
          </p>
        ) : judged ? (
          <>
            <StepResults result={judged.result} units={units} heading="This log" />
            <OtherAnswers view={view} others={judged.others} />
          </>
        ) : state.kind === 'empty' && kept ? (
          <StepResults result={kept.result} units={units} heading="The log that was kept" />
        ) : (
          <p className={styles.note}>
            {state.kind === 'mapped' && state.problemCount === 0
              ? 'Being judged …'
              : 'A CSV with a header row and a time column. It is read in this browser; nothing leaves the shop.'}
          </p>
        )}
      </aside>
      {trouble && (
        <p className={styles.trouble} role="alert">
          {trouble}
        </p>
      )}
      <footer className={styles.foot}>
        {primary && (
          <Button className={styles.primary} variant="contained" color="primary" onClick={primary.run}>
            {primary.title} <Key>Enter</Key>
          </Button>
        )}
        {state.kind === 'empty' && !locked && unread.length === 0 && kind.model.log && (
          <Button onClick={() => void takeStandIn()} disabled={driving}>
            {driving ? 'The stand-in is driving …' : 'Let the stand-in drive'}
          </Button>
        )}
        {state.kind !== 'empty' && state.kind !== 'sending' && unread.length === 0 && (
          <Button onClick={log.cancel}>{state.kind === 'reading' ? 'Cancel' : 'Another file'}</Button>
        )}
        <input
          ref={setInput}
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          aria-label="Log file"
          className={styles.hiddenFile}
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            if (file) log.open(file);
            event.target.value = '';
          }}
        />
        <div className={styles.spring} />
        <p>{sizeOf(state)}</p>
      </footer>
    </div>
  );

  function headline(): string {
    if (unread.length > 0) return 'Read these first';
    switch (state.kind) {
      case 'empty':
        return kept ? step.title : `${step.title}: bring the log of it`;
      case 'reading':
        return `Reading ${state.name}`;
      case 'sending':
        return `Keeping ${state.name}`;
      case 'unusable':
        return `${state.name} cannot be used`;
      case 'mapped':
        return state.problemCount > 0 ? 'Some rows cannot be used' : 'Is this how its columns are meant?';
    }
  }

  function body() {
    switch (state.kind) {
      case 'empty':
        if (kept)
          return <KeptTimeline key={kept.runId} run={kept.runId} step={stepId} events={kept.events} units={units} />;
        return (
          <div
            className={styles.drop}
            onDragOver={(event) => event.preventDefault()}
            onDrop={(event) => {
              event.preventDefault();
              const [file] = event.dataTransfer.files;
              if (file) log.open(file);
            }}
          >
            <p>Drop the log here, or choose it.</p>
            <p>{asksFor(step.feeds.log)}</p>
          </div>
        );
      case 'reading':
      case 'sending':
        return (
          <div className={styles.drop}>
            <LinearProgress
              variant="determinate"
              value={state.share * 100}
              aria-label={state.kind === 'reading' ? 'Read so far' : 'Kept so far'}
            />
            <p>{Math.round(state.share * 100)} %</p>
          </div>
        );
      case 'unusable':
        return <ProblemList texts={state.problems.map(readProblemText)} />;
      case 'mapped':
        return <MappedLog log={log} mapped={state} step={step} kind={kind} questions={questions} picture={picture} />;
    }
  }
}
