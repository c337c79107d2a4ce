'use client';
import type { GrowingTrace } from '@/core/traces/trace';
import { useEffect, useRef, useState } from 'react';
import type { RunStatus } from '@/server/runs/run-recorder';
import type { WireFrame } from '@/server/runs/wire-frame';

export type StreamState = 'connecting' | 'recording' | 'interrupted' | 'complete' | 'kept' | 'discarded';

/** Without a word for this long a connection counts as lost, ms; a closed one is made again after so long. */
const silenceAfter = 2_000;
const againAfter = 1_000;

export interface RunStream {
  readonly state: StreamState;
  readonly status: RunStatus | null;
  /** Nothing has come for a while although the run should be going on: what is shown is from before. */
  readonly silent: boolean;
  readonly samples: GrowingTrace;
  /** Changes whenever samples have come: the samples themselves are appended in place. */
  readonly version: number;
}

const nothing: GrowingTrace = { time: [], columns: {} };
const notYet: RunStream = { state: 'connecting', status: null, silent: false, samples: nothing, version: 0 };
const endStates = new Set(['complete', 'kept', 'discarded', 'interrupted']);

function append(samples: GrowingTrace, frame: WireFrame): void {
  for (const time of frame.time) samples.time.push(time);
  for (const [id, column] of Object.entries(frame.columns)) {
    const own = (samples.columns[id] ??= []);
    for (const value of column) own.push(value ?? Number.NaN);
  }
}

/** Follows a run from the server. A lost connection is made again and begins with everything recorded so far. */
export function useRunStream(runId: string | null, attempt: number): RunStream {
  const [stream, setStream] = useState<RunStream>(notYet);
  const pending = useRef(0);
  useEffect(() => {
    if (runId === null) return;
    let samples: GrowingTrace = { time: [], columns: {} };
    let last: Pick<RunStream, 'state' | 'status' | 'silent'> = { state: 'connecting', status: null, silent: false };
    let heard = Date.now();
    let again: ReturnType<typeof setTimeout> | null = null;
    let source: EventSource;
    const show = () => {
      // Many frames may come between two pictures: one redraw for all of them.
      if (pending.current) return;
      pending.current = requestAnimationFrame(() => {
        pending.current = 0;
        setStream((was) => ({ ...last, samples, version: was.version + 1 }));
      });
    };
    const connect = () => {
      again = null;
      source = new EventSource(`/api/runs/${runId}/stream`);
      source.onmessage = (event: MessageEvent<string>) => {
        const frame = JSON.parse(event.data) as WireFrame;
        heard = Date.now();
        if (frame.kind === 'whole') samples = { time: [], columns: {} };
        append(samples, frame);
        last = { state: frame.state as StreamState, status: frame.status ?? last.status, silent: false };
        if (frame.state !== 'recording') source.close();
        show();
      };
      source.onerror = () => {
        // The browser makes a broken connection again by itself, but not one that was refused.
        if (source.readyState === EventSource.CLOSED && !endStates.has(last.state) && !again)
          again = setTimeout(connect, againAfter);
      };
    };
    connect();
    const watch = setInterval(() => {
      const silent = !endStates.has(last.state) && Date.now() - heard > silenceAfter;
      if (silent === last.silent) return;
      last = { ...last, silent };
      show();
    }, silenceAfter / 8);
    return () => {
      clearInterval(watch);
      if (again) clearTimeout(again);
      source.close();
      if (pending.current) cancelAnimationFrame(pending.current);
      pending.current = 0;
    };
  }, [runId, attempt]);
  return runId === null ? notYet : stream;
}
