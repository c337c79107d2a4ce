'use client';
import Button from '@mui/material/Button';
import { useColorScheme } from '@mui/material/styles';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, type ReactNode } from 'react';
import { onwardFrom } from './onward';
import { extremes, readingsNow } from '@/core/traces/readings-now';
import { pictureOf } from '@/core/procedure/picture';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import type { Site } from '@/core/formats/site-file';
import { guideSeconds } from '@/core/procedure/guide';
import type { CautionId } from '@/core/vocabulary/caution-id';
import { figure, referenceOf, shownUnit } from '@/core/wording/display';
import { shownAs } from '@/core/quantities/shown-as';
import { channelTitle } from '@/core/quantities/channels';
import { inSentence } from '@/core/wording/in-sentence';
import { instructionText } from '@/core/wording/instruction-text';
import type { JobView } from '@/server/views/job-view';
import type { RunStatus } from '@/server/recording/run-recorder';
import { Chart } from '@/ui/charts/chart';
import { chartTokens } from '@/charts/chart-colours';
import { Key } from '@/ui/parts/key';
import { OverdueNote } from '@/ui/parts/overdue-note';
import { UndoList } from '@/ui/parts/undo-list';
import { send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import { BenchHead } from './bench-head';
import { stepPicture } from '@/charts/step-picture';
import { CautionList } from './caution-list';
import { CurveLegend } from './curve-legend';
import { Lever } from './lever';
import { measuredActions } from './measured-actions';
import { PrimaryButton } from './primary-button';
import { Reading } from './reading';
import { inReadingOrder } from './reading-order';
import { RigTime } from './rig-time';
import { barEnd } from './bar-end';
import { ShutNotice, useShut } from './shut-notice';
import { StepList } from './step-list';
import { StepResults } from './step-results';
import { useBenchContext } from './use-bench-context';
import { useBenchRun } from './use-bench-run';
import { useKeyActions } from './use-key-actions';
import { watchHold } from '@/core/toolboxes/vacuum/watch-hold';
import { WaysToFeed } from './ways-to-feed';
import { useLever } from './use-lever';
import styles from './bench.module.css';

interface Props {
  readonly view: JobView;
  readonly step: string;
  readonly site: Site;
  readonly date: string;
  readonly air: string;
}

/** Time that nobody sampled: the trace has a gap there. */
const lostText = (lost: RunStatus['lost'] | undefined): string =>
  lost && lost.gaps > 0
    ? `, ${lost.gaps === 1 ? 'one gap' : `${lost.gaps} gaps`} of ${lost.seconds.toFixed(1)} s together in the trace`
    : '';

/** "; motor on for 12 s of 90 s". */
function dutyText({ of, seconds, limit }: NonNullable<RunStatus['duty']>): string {
  const what = of === 'motor' ? 'motor on' : 'dead-headed';
  return `; ${what} for ${seconds.toFixed(0)} s of ${limit} s`;
}

const nothingRead: Readonly<Record<string, number>> = {};

/** One measured step, live. */
export function MeasuredBench({ view, step: stepId, site, date, air }: Props) {
  const router = useRouter();
  const { person, units } = useShop();
  const { mode } = useColorScheme();
  const { kind, context, lever: driven } = useBenchContext(view, stepId, site, date);
  const step = kind.steps.find((each) => each.id === stepId) as MeasuredStep<unknown>;
  const phases = useMemo(() => step.feeds.live?.guide(context) ?? [], [step, context]);
  const run = useBenchRun(view, stepId, person);
  const { stream, result } = run;
  const lever = useLever(run.runId, run.setTrouble);
  const locked = useShut(view, stepId);

  const stepView = view.steps.find((each) => each.id === stepId);
  const unread = step.cautions.filter((id) => !view.cautions.some((each) => each.caution === id));
  const elsewhere = view.openRun && view.openRun.step !== stepId ? view.openRun : null;
  const recording = stream.state === 'recording' && !stream.status?.done;
  const idle = run.runId === null;
  const readings = useMemo(() => readingsNow(stream.samples), [stream]);
  const live = recording ? readings : nothingRead;
  const bands = useMemo(() => step.feeds.live?.bands(context, live) ?? {}, [step, context, live]);
  const usesLever = phases.some((phase) => phase.lever.to > 0);
  const byItself = stream.status?.byItself ?? false;
  // Phases that wait for something may take long or not: the axis grows with them.
  const waits = phases.some((phase) => ['reading', 'switched', 'strokes'].includes(phase.end.kind));
  const seconds = waits ? 0 : guideSeconds(phases);

  const at = Math.min(stream.status?.phase ?? 0, phases.length - 1);
  // Of the samples that have come, not of every render: the stream is another one whenever they have.
  const watched = useMemo(
    () =>
      recording
        ? watchHold(step, context, {
            phase: phases[at],
            elapsed: stream.status?.elapsed ?? null,
            samples: stream.samples,
          })
        : null,
    [recording, step, context, phases, at, stream],
  );
  // Nothing is called on readings that have stopped coming.
  const silent = recording && stream.silent;
  const callable = silent ? null : watched?.call.kind === 'pass' || watched?.call.kind === 'fail' ? watched.call : null;

  const picture = useMemo(
    () =>
      stepPicture({
        kind,
        step,
        context,
        samples: stream.samples,
        readings,
        bands,
        result,
        running: recording,
        watched,
        seconds,
        units,
        tokens: chartTokens(mode),
      }),
    [kind, step, context, stream, readings, bands, result, recording, watched, seconds, units, mode],
  );

  const acknowledge = async () => {
    try {
      await send(`/api/jobs/${view.job.id}/cautions`, { cautions: unread, person });
      router.refresh();
    } catch (error) {
      run.setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  const byItselfTo = (on: boolean) => {
    lever.release();
    void run.command({ kind: 'by-itself', on });
  };
  const { later, href } = onwardFrom(view, stepId);
  const undone = view.steps.find((each) => each.shut?.opener === stepId && each.evaluation.verdict === 'not-run');
  const titleOf = (id: string) => view.steps.find((each) => each.id === id)?.title ?? id;
  const onward = () => router.push(href);

  // A run that is there is finished and judged whatever its own charging has locked.
  const shutNow = idle && !elsewhere ? locked : null;
  const go = (id: string) => router.push(`/jobs/${view.job.id}/bench/${id}`);
  const { primary, others } = measuredActions(
    {
      elsewhere: elsewhere && { id: elsewhere.step, title: titleOf(elsewhere.step) },
      shut: shutNow?.action ?? null,
      unread: unread.length > 0,
      idle,
      state: stream.state,
      recording,
      callable: callable?.kind ?? null,
      usesLever,
      byItself,
      aside: view.aside.includes(stepId),
      undone: undone ? undone.title : null,
      later: later ? later.title : null,
    },
    { ...run, go, acknowledge, byItselfTo, onward },
  );
  const focusedRef = useRef(false);
  useKeyActions({
    primary: primary?.run ?? null,
    secondary: recording && usesLever ? () => byItselfTo(!byItself) : null,
    again: others.find((each) => each.key === 'R')?.run ?? null,
    stop: others.find((each) => each.key === 'S')?.run ?? null,
    discard: others.find((each) => each.key === 'X')?.run ?? null,
    back: () => router.push(`/jobs/${view.job.id}`),
  });

  const undoableHere = view.undoable.filter(({ what, of }) => what === 'discarded' && of?.id === stepId);
  const cautioned = unread.length > 0 && !recording && !elsewhere && !shutNow;
  const shownResult = result ?? (stream.state === 'kept' && stepView ? stepView.evaluation : null);

  return (
    <div className={styles.bench}>
      <BenchHead view={view} air={air} />
      <StepList view={view} current={stepId} />
      <main className={styles.work}>
        <h1 aria-live="polite">{headline()}</h1>
        <p className={styles.why}>{step.why}</p>
        {shutNow ? (
          <ShutNotice shut={shutNow.shut} />
        ) : cautioned ? (
          <CautionList ids={unread as readonly CautionId[]} />
        ) : (
          pictureAndLever()
        )}
      </main>
      <aside
        className={`${styles.side} ${silent ? styles.silent : ''}`}
        aria-label={shownResult ? 'Results' : silent ? 'Readings from before' : 'Readings'}
      >
        {!recording && <WaysToFeed view={view} step={step} current="live" />}
        {!recording && undoableHere.length > 0 && (
          <div className={styles.undoable}>
            <UndoList undoable={undoableHere} />
          </div>
        )}
        <OverdueNote overdue={view.overdue.filter((each) => each.steps.includes(stepId))} />
        {shownResult ? <StepResults result={shownResult} units={units} /> : readingPanels()}
      </aside>
      {(silent || run.trouble || stream.status?.storageProblem || run.endedElsewhere) && (
        <p className={styles.trouble} role="alert">
          {silent
            ? 'No word from the server. The figures are from before, pressure may be on, and the recording may go on there. This screen follows again by itself.'
            : run.trouble ||
              (stream.status?.storageProblem
                ? stream.status.standsStill
                  ? `The trace cannot be written (${stream.status.storageProblem}). The rig stands still; what was recorded is kept in memory and tried again every second.`
                  : `The trace cannot be written (${stream.status.storageProblem}). It is kept in memory and tried again every second: make room on the disk.`
                : stream.state === 'discarded'
                  ? 'Another screen has thrown this run away.'
                  : 'Another screen has ended this run.')}
        </p>
      )}
      <footer className={styles.foot}>
        {primary && (
          <PrimaryButton
            // Another action is another button: a press begun on one must never land on the next.
            key={primary.title}
            focusedRef={focusedRef}
            className={styles.primary}
            variant="contained"
            color="primary"
            onClick={primary.run}
            disabled={run.busy}
          >
            {primary.title} <Key>{primary.key}</Key>
          </PrimaryButton>
        )}
        {others.map((action) => (
          <Button key={action.key} onClick={action.run} disabled={run.busy}>
            {action.title} <Key>{action.key}</Key>
          </Button>
        ))}
        <div className={styles.spring} />
        {recording && (
          <RigTime
            speed={stream.status?.speed ?? 1}
            pace={stream.status?.pace}
            onChange={(speed) => run.command({ kind: 'speed', speed })}
          />
        )}
        <p>{footLine()}</p>
      </footer>
    </div>
  );

  function headline(): string {
    if (elsewhere) return 'Another step of this unit is still open';
    if (shutNow) return `${step.title} is shut`;
    if (cautioned) return 'Read these first';
    if (idle) return step.title;
    if (silent) return 'No word from the server';
    switch (stream.state) {
      case 'interrupted':
        return 'This run was interrupted';
      case 'complete':
        return 'Keep this run, or run it again?';
      case 'discarded':
        return 'This run was thrown away';
      case 'kept':
        return `${step.title}, kept`;
      case 'recording':
        if (stream.status?.cut)
          return stream.status.cut.of === 'motor'
            ? 'Stopped: the motor’s limit is used up'
            : 'Stopped: dead-headed long enough';
        if (stream.status?.done) return 'Done: reading the trace';
        return callable ? callText(callable) : instructionText(phases[at].instruction, units);
      default:
        return step.title;
    }
  }

  /** "Called at 6 s of 15 s: 0.40 ± 0.20 kPa of 3.30 kPa". */
  function callText(call: { readonly at: number; readonly loss: number; readonly expanded: number }): string {
    const as = watched && shownAs(watched.channel) === 'vacuum' ? 'vacuum-difference' : 'difference';
    const unit = shownUnit(as, units);
    const loss = figure(call.loss, unit, call.expanded);
    const limit = figure(watched?.limit ?? Number.NaN, unit);
    return `At ${call.at.toFixed(0)} s of ${watched?.seconds} s: ${loss} ${unit.symbol} of ${limit}`;
  }

  function footLine(): ReactNode {
    if (recording)
      return (
        <>
          Recording on the stand-in rig, {step.feeds.live?.rate ?? 200} samples/s,{' '}
          {(stream.samples.time.at(-1) ?? 0).toFixed(0)} s{stream.status?.duty ? dutyText(stream.status.duty) : ''}
          {lostText(stream.status?.lost)}
          <br />
          {at + 1 < phases.length
            ? `Then: ${inSentence(instructionText(phases[at + 1].instruction, units))}`
            : 'Last part of this step'}
        </>
      );
    if (view.aside.includes(stepId))
      return <>The run before this one is set aside: it goes when this one is kept, and comes back when it is not.</>;
    return <>Stand-in rig: {step.minutes} min on a real bench</>;
  }

  function pictureAndLever(): ReactNode {
    const curve = pictureOf(step.pictures, 'curve');
    return (
      <div className={styles.picture}>
        <div className={styles.drawn}>
          {curve && <CurveLegend curve={curve} />}
          <Chart option={picture.option} text={picture.text} className={styles.chart} />
        </div>
        {driven && usesLever && recording && (
          <Lever
            channel={driven.channel}
            value={byItself ? (stream.status?.lever ?? 0) : (lever.held ?? stream.status?.lever ?? 0)}
            maximum={driven.maximum}
            units={units}
            disabled={false}
            onPull={lever.pull}
          />
        )}
      </div>
    );
  }

  function readingPanels(): ReactNode {
    // A step that two plans share reads both their levers; only the plan's own is there.
    const levers = kind.plans.flatMap((plan) => plan.lever?.channel ?? []);
    const { needs, uses } = step.feeds.log;
    const wanted = inReadingOrder(needs, uses)
      .filter((channel) => channel === driven?.channel || !levers.includes(channel))
      .slice(0, 4);
    return wanted.map((channel) => {
      const as = shownAs(channel);
      const column = stream.samples.columns[channel];
      const { low, high } = column && recording ? extremes(column) : { low: Number.NaN, high: Number.NaN };
      const tick =
        as === 'state' ? null : as === 'vacuum' ? { word: 'lowest', value: low } : { word: 'peak', value: high };
      return (
        <Reading
          key={channel}
          title={channelTitle(channel)}
          value={live[channel]}
          unit={shownUnit(as, units)}
          reference={referenceOf(as)}
          band={bands[channel]}
          tick={tick}
          end={barEnd(channel, bands, driven)}
        />
      );
    });
  }
}
