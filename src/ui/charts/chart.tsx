'use client';
import type { EChartsOption } from 'echarts';
import type { EChartsType } from 'echarts/core';
import { useEffect, useRef } from 'react';
import { chartIn } from '@/charts/library';

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

/** An ECharts canvas that fills its box and redraws at most once a frame. */
export function Chart({ option, text, className }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType | null>(null);
  const shown = useRef('');
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const made = chartIn(element, null, { renderer: 'canvas' });
    chart.current = made;
    // An observer also speaks when it begins: only another size is worth drawing again for.
    const observer = new ResizeObserver(() => {
      if (made.getWidth() !== element.clientWidth || made.getHeight() !== element.clientHeight) made.resize();
    });
    observer.observe(element);
    // Canvas text is measured once: draw again when the shipped faces have come.
    if (document.fonts.status !== 'loaded') void document.fonts.ready.then(() => !made.isDisposed() && made.resize());
    return () => {
      observer.disconnect();
      made.dispose();
      chart.current = null;
      shown.current = '';
    };
  }, []);
  useEffect(() => {
    let frame = requestAnimationFrame(() => {
      // A first picture comes in two frames, the axes before what is drawn in them: one long pause would be felt.
      if (shown.current === '') {
        chart.current?.setOption({ ...option, series: [] });
        frame = requestAnimationFrame(draw);
      } else draw();
    });
    function draw() {
      if (!chart.current) return;
      const now = makeUp(option);
      // A picture of another make-up takes the place of the last: nothing of that may stay under it.
      chart.current.setOption(option, { notMerge: now !== shown.current, lazyUpdate: false });
      shown.current = now;
    }
    return () => cancelAnimationFrame(frame);
  }, [option]);
  return (
    <div className={className} role="img" aria-label={text}>
      <div ref={box} style={{ width: '100%', height: '100%' }} />
    </div>
  );
}
