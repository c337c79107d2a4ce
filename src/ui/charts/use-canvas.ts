'use client';
import type { EChartsType } from 'echarts/core';
import { type RefObject, useEffect, useState } from 'react';

/** What pictures are drawn on: it comes when a page first draws one, for most of what a page says does not wait for it. */
export type Canvas =
  | { readonly kind: 'coming' }
  | { readonly kind: 'here'; readonly chart: EChartsType }
  /** The library of pictures could not be fetched. */
  | { readonly kind: 'missing' };

/** A canvas that fills a box and keeps its size. `onSize` is told the box's height, px, first when the canvas is there. */
export function useCanvas(box: RefObject<HTMLDivElement | null>, onSize?: (height: number) => void): Canvas {
  const [canvas, setCanvas] = useState<Canvas>({ kind: 'coming' });
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    let gone = false;
    let leave = () => {};
    import('@/charts/library').then(
      ({ chartIn }) => {
        if (gone) return;
        const chart = chartIn(element, null, { renderer: 'canvas' });
        // An observer also speaks when it begins: only another size is worth drawing again for.
        const observer = new ResizeObserver(() => {
          if (chart.getWidth() !== element.clientWidth || chart.getHeight() !== element.clientHeight) chart.resize();
          onSize?.(element.clientHeight);
        });
        observer.observe(element);
        // Canvas text is measured once: draw again when the shipped faces have come.
        if (document.fonts.status !== 'loaded')
          void document.fonts.ready.then(() => !chart.isDisposed() && chart.resize());
        leave = () => {
          observer.disconnect();
          chart.dispose();
        };
        setCanvas({ kind: 'here', chart });
      },
      () => {
        if (!gone) setCanvas({ kind: 'missing' });
      },
    );
    return () => {
      gone = true;
      leave();
      setCanvas({ kind: 'coming' });
    };
  }, [box, onSize]);
  return canvas;
}
