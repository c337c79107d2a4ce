'use client';
import Button from '@mui/material/Button';
import { useColorScheme } from '@mui/material/styles';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { chartTokens } from '@/charts/chart-colours';
import { driveTime, timelineOption, timelineText, type TimelineEvent } from '@/charts/timeline';
import type { TimelinePart, TimelineWindow } from '@/core/pictures/timeline-window';
import type { DisplayUnits } from '@/core/wording/display';
import { Choice } from '@/ui/parts/choice';
import { Key } from '@/ui/parts/key';
import styles from './timeline-view.module.css';
import { useCanvas } from './use-canvas';

interface Props {
  /** The whole of it, to begin with. */
  readonly first: TimelinePart;
  /** Gives a part of it in more detail. */
  readonly look: (window: TimelineWindow) => Promise<TimelinePart>;
  readonly events: readonly TimelineEvent[];
  readonly units: DisplayUnits;
}

/** About an event so much is shown before it and after it, s. */
const about = { before: 4, after: 8 };
/** Least that is looked at, s. */
const least = 0.5;
/** A part is asked for once the wheel has been still for so long, ms. */
const still = 140;

/** Keeps a window inside of the whole, as long as it is. */
function within(whole: TimelineWindow, { from, to }: TimelineWindow): TimelineWindow {
  const long = Math.min(whole.to - whole.from, Math.max(least, to - from));
  const start = Math.min(Math.max(whole.from, from), whole.to - long);
  return { from: start, to: start + long };
}

/** A long log to be looked into anywhere: by wheel, brush and slider, by keys, and from one event to the next. */
export function TimelineView({ first, look, events, units }: Props) {
  const { mode } = useColorScheme();
  const [part, setPart] = useState(first);
  const [window, setWindow] = useState(first.window);
  const [trouble, setTrouble] = useState('');
  const [height, setHeight] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  const canvas = useCanvas(box, setHeight);
  const asked = useRef(0);
  const waiting = useRef<ReturnType<typeof setTimeout> | null>(null);
  const { whole } = first;

  const goTo = useCallback(
    (to: TimelineWindow) => {
      const next = within(whole, to);
      setWindow(next);
      if (waiting.current) clearTimeout(waiting.current);
      waiting.current = setTimeout(() => {
        const mine = ++asked.current;
        look(next).then(
          (found) => {
            if (mine !== asked.current) return;
            setTrouble('');
            setPart(found);
          },
          (error: unknown) => {
            if (mine === asked.current) setTrouble(error instanceof Error ? error.message : String(error));
          },
        );
      }, still);
    },
    [look, whole],
  );
  const move = useRef(goTo);
  useEffect(() => {
    move.current = goTo;
  }, [goTo]);

  useEffect(() => {
    if (canvas.kind !== 'here') return;
    const { chart } = canvas;
    const zoomed = () => {
      const [zoom] = (chart.getOption() as { dataZoom?: { startValue: number; endValue: number }[] }).dataZoom ?? [];
      if (zoom) move.current({ from: whole.from + zoom.startValue, to: whole.from + zoom.endValue });
    };
    chart.on('datazoom', zoomed);
    return () => {
      if (waiting.current) clearTimeout(waiting.current);
      chart.off('datazoom', zoomed);
    };
  }, [canvas, whole]);

  const drawn = useMemo(
    () => ({ lanes: part.lanes, start: whole.from, window, whole, events }),
    [part, whole, window, events],
  );
  useEffect(() => {
    if (height === 0 || canvas.kind !== 'here') return;
    const { chart } = canvas;
    const frame = requestAnimationFrame(() =>
      chart.setOption(timelineOption(drawn, { tokens: chartTokens(mode), units, height }), {
        replaceMerge: ['series'],
      }),
    );
    return () => cancelAnimationFrame(frame);
  }, [canvas, drawn, mode, units, height]);

  const middle = (window.from + window.to) / 2;
  const long = window.to - window.from;
  const zoom = (factor: number) => goTo({ from: middle - (long * factor) / 2, to: middle + (long * factor) / 2 });
  const shift = (share: number) => goTo({ from: window.from + share * long, to: window.to + share * long });
  const showEvent = (event: TimelineEvent | undefined) =>
    event && goTo({ from: event.time - about.before, to: event.time + about.after });
  /** The event that is looked at is where it was put: `about.before` into the window. */
  const lookedAt = window.from + about.before;
  const near = 0.05;
  const next = events.find(({ time }) => time > lookedAt + near);
  const previous = events.findLast(({ time }) => time < lookedAt - near);
  const chosen = events.findIndex(({ time }) => Math.abs(time - lookedAt) <= near);
  useHotkeys('n', () => showEvent(next), [next, goTo]);
  useHotkeys('p', () => showEvent(previous), [previous, goTo]);

  return (
    <div className={styles.view}>
      <div className={styles.controls} role="group" aria-label="What of the drive is shown">
        <Button size="small" onClick={() => goTo(whole)}>
          Whole drive
        </Button>
        <Button size="small" onClick={() => shift(-0.5)} aria-label="Earlier">
          ←
        </Button>
        <Button size="small" onClick={() => shift(0.5)} aria-label="Later">
          →
        </Button>
        <Button size="small" onClick={() => zoom(0.5)} aria-label="Closer">
          +
        </Button>
        <Button size="small" onClick={() => zoom(2)} aria-label="Wider">
          −
        </Button>
        {events.length > 0 && (
          <>
            <Button size="small" onClick={() => showEvent(previous)} disabled={!previous}>
              Event before <Key>P</Key>
            </Button>
            <Button size="small" onClick={() => showEvent(next)} disabled={!next}>
              Next event <Key>N</Key>
            </Button>
            <label className={styles.events}>
              <span>Event</span>
              <Choice
                id="timeline-event"
                value={chosen < 0 ? '' : String(chosen)}
                onChange={(at) => showEvent(events[Number(at)])}
              >
                {chosen < 0 && <option value="">{`choose one of ${events.length}`}</option>}
                {events.map(({ title, time }, at) => (
                  <option key={`${title} ${time}`} value={at}>
                    {`${driveTime(time - whole.from, true)} ${title}`}
                  </option>
                ))}
              </Choice>
            </label>
          </>
        )}
        <output aria-live="polite">
          {driveTime(window.from - whole.from, true)} to {driveTime(window.to - whole.from, true)}
        </output>
      </div>
      {trouble && (
        <p role="alert" className={styles.trouble}>
          {trouble}
        </p>
      )}
      <div className={styles.chart} role="img" aria-label={timelineText(drawn, units)}>
        <div ref={box} className={styles.canvas}>
          {canvas.kind === 'missing' && <p>The picture could not be fetched. {timelineText(drawn, units)}</p>}
        </div>
      </div>
    </div>
  );
}
