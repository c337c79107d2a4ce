'use client';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useColorScheme } from '@mui/material/styles';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import type { MappedColumn } from '@/core/formats/column-mapping';
import { onwardFrom } from './onward';
import { mappingQuestions, type MappingQuestion } from '@/core/formats/mapping-questions';
import { isRowProblem } from '@/core/vocabulary/read-problem';
import type { Site } from '@/core/formats/site-file';
import type { DecisionPolicy } from '@/core/vocabulary/verdict';
import type { CautionId } from '@/core/vocabulary/caution-id';
import { readProblemText } from '@/core/wording/read-problem-text';
import { channelTitle } from '@/core/quantities/channels';
import type { JobView } from '@/server/jobs/job-view';
import { Chart } from '@/ui/charts/chart';
import { TimelineView } from '@/ui/charts/timeline-view';
import { timelineEvents } from '@/charts/timeline';
import { chartTokens } from '@/charts/chart-colours';
import { placeTitle } from '@/core/quantities/places';
import { Choice } from '@/ui/parts/choice';
import { Key } from '@/ui/parts/key';
import { readFrame } from '@/core/traces/frame';
import { growingFrom, type GrowingTrace } from '@/core/traces/trace';
import { ask, send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import { BenchHead } from './bench-head';
import { stepPicture } from '@/charts/step-picture';
import { eventsOf, useKeptLog } from './kept-log';
import { KeptTimeline } from './kept-timeline';
import { OtherAnswers } from './other-answers';
import { CautionList } from './caution-list';
import { MappingTable } from './mapping-table';
import { ProblemList } from './problem-list';
import { ShutNotice, useShut } from './shut-notice';
import { StepList } from './step-list';
import { StepResults } from './step-results';
import { useBenchContext } from './use-bench-context';
import { useKeyActions } from './use-key-actions';
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

/** What a step asks of a log, in a sentence. */
function asksFor({ needs, uses }: MeasuredStep<unknown>['feeds']['log']): string {
  const named = (channels: readonly string[]) => channels.map((channel) => channelTitle(channel).toLowerCase());
  const used = `uses ${named(uses).join(', ')} where there`;
  if (needs.length === 0) return `This step ${used}.`;
  return `This step needs ${named(needs).join(' and ')}${uses.length > 0 ? `, and ${used}` : ''}.`;
}

const noSamples: GrowingTrace = { time: [], columns: {} };

/** The thinned samples that the log worker sends. */
function previewOf(bytes: ArrayBuffer): GrowingTrace {
  const read = readFrame(new Uint8Array(bytes));
  return read.kind === 'frame' ? growingFrom(read.frame.samples) : noSamples;
}

const questionWords: Readonly<Record<MappingQuestion['why'], (header: string) => string>> = {
  'unit-unknown': (header) =>
    `“${header}” names a unit that is not known here. Choose it below; as it stands the usual one is taken.`,
  'scale-questioned': (header) => `“${header}” shows more than anything here has. Is its unit right?`,
  'reference-open': (header) => `“${header}” makes sense as it is called, and as an absolute pressure. Which is it?`,
  'remembered-misfits': (header) =>
    `“${header}” looks otherwise in this file than in the last one: its unit, sign or reference has changed.`,
};

/** A column as it was when somebody said that it is so: mapped otherwise it is asked about again. */
const answerOf = (file: string, mapped: MappedColumn, column: number) => `${file} ${column} ${JSON.stringify(mapped)}`;

/** A step fed from a log file: columns guessed, shown over a preview, judged at once, remembered by the file's header. */
export function LogBench({ view, step: stepId, site, date, air, policy }: Props) {
  const router = useRouter();
  const { person, units } = useShop();
  const { mode } = useColorScheme();
  const { kind, context } = useBenchContext(view, stepId, site, date);
  const kept = useKeptLog(view, stepId);
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
  /** Columns of a file that somebody has looked at again. */
  const [answered, setAnswered] = useState<ReadonlySet<string>>(new Set());
  const [trouble, setTrouble] = useState('');
  const locked = useShut(view, stepId);
  const unread = step.cautions.filter((id) => !view.cautions.some((each) => each.caution === id));
  const onward = onwardFrom(view, stepId);
  const judged = state.kind === 'mapped' ? state.judged : null;

  const mapped = state.kind === 'mapped';
  // What it should be is drawn as soon as the columns are known; the log comes over it when it is judged.
  const picture = useMemo(() => {
    if (!mapped) return null;
    return stepPicture({
      kind,
      step,
      context,
      samples: judged ? previewOf(judged.preview) : noSamples,
      readings: {},
      bands: step.feeds.live?.bands(context, {}) ?? {},
      result: judged?.result ?? null,
      running: false,
      watched: null,
      seconds: 0,
      units,
      tokens: chartTokens(mode),
    });
  }, [mapped, judged, kind, step, context, units, mode]);

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
  const questions =
    state.kind === 'mapped'
      ? mappingQuestions(
          state.opened.headers,
          state.mapping,
          state.opened.guesses,
          state.remembered,
          state.judged?.questioned,
        ).filter(({ column }) => !answered.has(answerOf(state.name, state.mapping[column], column)))
      : [];
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
      if (questions.length > 0) throw new Error('Answer first what is asked about its columns.');
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
        {judged ? (
          <>
            <StepResults result={judged.result} units={units} heading="This log" />
            <OtherAnswers view={view} others={judged.others} />
          </>
        ) : state.kind === 'empty' && kept ? (
          <StepResults result={kept.result} units={units} heading="The log that was kept" />
        ) : (
          <p className={styles.note}>
            {mapped && state.problemCount === 0
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
        <p>{footLine()}</p>
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

  function footLine(): string {
    if (state.kind !== 'mapped') return '';
    const { rows, headers, repeatedHeaders } = state.opened;
    const again = repeatedHeaders > 0 ? `, its header ${repeatedHeaders} times more (left out)` : '';
    const repeated =
      state.judged && state.judged.repeatedTimes > 0 ? `, ${state.judged.repeatedTimes} repeat a time` : '';
    const left = state.judged && state.judged.leftOut.length > 0 ? `, ${state.judged.leftOut.length} left out` : '';
    return `${rows.toLocaleString('en')} rows, ${headers.length} columns${again}${repeated}${left}`;
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
        return mappedBody(state);
    }
  }

  function mappedBody(mapped: Extract<typeof state, { kind: 'mapped' }>) {
    return (
      <div className={styles.mapped}>
        {mapped.remembered && <p className={styles.note}>Understood as the last log with these headers.</p>}
        {questions.length > 0 && (
          <List className={styles.questions} aria-label="To be answered">
            {questions.map(({ column, header, why }) => (
              <ListItem key={column}>
                {questionWords[why](header)}
                <Button
                  size="small"
                  className={styles.answer}
                  onClick={() =>
                    setAnswered(new Set([...answered, answerOf(mapped.name, mapped.mapping[column], column)]))
                  }
                >
                  it is so
                </Button>
              </ListItem>
            ))}
          </List>
        )}
        {step.feeds.log.named && (
          <p className={styles.named}>
            <label htmlFor="log-named">{channelTitle(step.feeds.log.named.channel)}</label>
            <Choice
              id="log-named"
              value={mapped.said ?? ''}
              onChange={(said) => log.judge(mapped.mapping, false, said)}
            >
              {mapped.said === null && <option value="">say which</option>}
              {Object.keys(step.feeds.log.named.values).map((value) => (
                <option key={value} value={value}>
                  {placeTitle(value)}
                </option>
              ))}
            </Choice>
          </p>
        )}
        <MappingTable
          headers={mapped.opened.headers}
          mapping={mapped.mapping}
          guesses={mapped.remembered ? null : mapped.opened.guesses}
          onChange={log.judge}
        />
        {mapped.problemCount > 0 && (
          <>
            <ProblemList texts={mapped.problems.slice(0, 8).map(readProblemText)} />
            {mapped.problemCount > 8 && <p>and {mapped.problemCount - 8} more.</p>}
            {mapped.problems.every(isRowProblem) && (
              <Button onClick={() => log.judge(mapped.mapping, true)}>
                Leave {mapped.problemCount === 1 ? 'this row' : `these ${mapped.problemCount} rows`} out; it is recorded
              </Button>
            )}
          </>
        )}
        {mapped.judged?.timeline ? (
          <div className={styles.timeline}>
            <TimelineView
              first={mapped.judged.timeline}
              look={log.look}
              events={timelineEvents(eventsOf([mapped.judged.result]))}
              units={units}
            />
          </div>
        ) : (
          picture && <Chart option={picture.option} text={picture.text} className={styles.chart} />
        )}
      </div>
    );
  }
}
