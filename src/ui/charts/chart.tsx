'use client';
import type { EChartsOption } from 'echarts';
import { useEffect, useRef } from 'react';
import { useCanvas } from './use-canvas';

interface Props {
  readonly option: EChartsOption;
  /** What the picture says, for those who do not see it. */
  readonly text: string;
  readonly className?: string;
}

/** What a picture is made of: while this stays, only data changes and merging is enough. */
function makeUp({ series, xAxis, yAxis }: EChartsOption): string {
  const list = <T,>(one: T | readonly T[] | undefined): readonly T[] =>
    one === undefined ? [] : Array.isArray(one) ? (one as readonly T[]) : [one as T];
  const ids = list(series as { id?: string } | { id?: string }[]).map((each) => each.id ?? '');
  const axes = [xAxis, yAxis].flatMap((axis) => list(axis as { type?: string } | { type?: string }[]));
  return [...ids, ...axes.map((axis) => axis.type ?? '')].join();
}

/** A picture that fills its box and is drawn at most once a frame. */
export function Chart({ option, text, className }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useCanvas(box);
  /** What is on the canvas, by its make-up; of a new canvas nothing is. */
  const shown = useRef<{ on: unknown; makeUp: string }>({ on: null, makeUp: '' });
  useEffect(() => {
    if (canvas.kind !== 'here') return;
    const { chart } = canvas;
    let frame = requestAnimationFrame(() => {
      // A first picture comes in two frames, the axes before what is drawn in them: one long pause would be felt.
      if (shown.current.on !== chart) {
        chart.setOption({ ...option, series: [] });
        frame = requestAnimationFrame(draw);
      } else draw();
    });
    function draw() {
      const now = makeUp(option);
      // A picture of another make-up takes the place of the last: nothing of that may stay under it.
      const same = shown.current.on === chart && shown.current.makeUp === now;
      chart.setOption(option, { notMerge: !same, lazyUpdate: false });
      shown.current = { on: chart, makeUp: now };
    }
    return () => cancelAnimationFrame(frame);
  }, [canvas, option]);
  return (
    <div className={className} role="img" aria-label={text}>
      <div ref={box} style={{ width: '100%', height: '100%' }}>
        {canvas.kind === 'missing' && <p>The picture could not be fetched. {text}</p>}
      </div>
    </div>
  );
}
