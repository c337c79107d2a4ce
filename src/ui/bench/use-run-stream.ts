'use client';
import { useEffect, useRef, useState } from 'react';
import type { RunStatus } from '@/server/runs/run-recorder';
import type { WireFrame } from '@/server/runs/run-stream';

/** Samples of a run as they have come, SI; NaN where one is missing. */
export interface Samples {
  readonly time: number[];
  readonly columns: Record<string, number[]>;
}

export type StreamState = 'connecting' | 'recording' | 'interrupted' | 'complete' | 'kept' | 'lost';

export interface RunStream {
  readonly state: StreamState;
  readonly status: RunStatus | null;
  readonly samples: Samples;
  /** Changes whenever samples have come: the samples themselves are appended in place. */
  readonly version: number;
}

const nothing: Samples = { time: [], columns: {} };

function append(samples: Samples, frame: WireFrame): void {
  for (const time of frame.time) samples.time.push(time);
  for (const [id, column] of Object.entries(frame.columns)) {
    const own = (samples.columns[id] ??= []);
    for (const value of column) own.push(value ?? Number.NaN);
  }
}

/** Follows a run from the server. A lost connection is made again and begins with everything recorded so far. */
export function useRunStream(runId: string | null, attempt: number): RunStream {
  const [stream, setStream] = useState<RunStream>({ state: 'connecting', status: null, samples: nothing, version: 0 });
  const pending = useRef(0);
  useEffect(() => {
    if (runId === null) return;
    let samples: Samples = { time: [], columns: {} };
    let last: Pick<RunStream, 'state' | 'status'> = { state: 'connecting', status: null };
    const source = new EventSource(`/api/runs/${runId}/stream`);
    const show = () => {
      // Many frames may come between two pictures: one redraw for all of them.
      if (pending.current) return;
      pending.current = requestAnimationFrame(() => {
        pending.current = 0;
        setStream((was) => ({ ...last, samples, version: was.version + 1 }));
      });
    };
    source.onmessage = (event: MessageEvent<string>) => {
      const frame = JSON.parse(event.data) as WireFrame;
      if (frame.kind === 'whole') samples = { time: [], columns: {} };
      append(samples, frame);
      last = { state: frame.state as StreamState, status: frame.status ?? last.status };
      if (frame.state !== 'recording') source.close();
      show();
    };
    source.onerror = () => {
      if (source.readyState === EventSource.CLOSED) last = { ...last, state: 'lost' };
      show();
    };
    return () => {
      source.close();
      if (pending.current) cancelAnimationFrame(pending.current);
      pending.current = 0;
    };
  }, [runId, attempt]);
  return runId === null ? { state: 'connecting', status: null, samples: nothing, version: 0 } : stream;
}
