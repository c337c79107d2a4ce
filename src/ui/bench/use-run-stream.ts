'use client';
import { FrameReader } from '@/core/traces/frame';
import { thinned } from '@/core/traces/decimate';
import { appendTo, growingFrom, makeTrace, type GrowingTrace, type Trace } from '@/core/traces/trace';
import { useEffect, useRef, useState } from 'react';
import type { RunStatus } from '@/server/recording/run-recorder';
import type { WireWord } from '@/server/recording/wire-frame';

export type StreamState = 'connecting' | 'recording' | 'interrupted' | 'complete' | 'kept' | 'discarded';

/** Without a word for this long a connection counts as lost, ms; a closed one is made again after so long. */
const silenceAfter = 2_000;
/** A connection that says nothing for so long is given up and made anew: it may be open at one end only, ms. */
const givenUpAfter = 6_000;
const againAfter = 1_000;

/** As smooth as a hand and an eye ask for, and half the work of every frame, ms. */
const drawnEvery = 50;
/** A slow screen draws less often: of its time a picture takes no more than one part in so many. */
const partForDrawing = 2;
/** Where nothing is drawn, as behind another window, a picture counts as drawn after so long, ms. */
const drawnAtTheLatest = 250;

/** Of more samples than this the lowest and highest of every stretch are held. */
const mostHeld = 250_000;
const thinnedTo = 8_000;

const asTrace = ({ time, columns }: GrowingTrace): Trace =>
  makeTrace(
    Float64Array.from(time),
    Object.fromEntries(Object.entries(columns).map(([id, column]) => [id, Float64Array.from(column)])),
  );

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

/** Hands on every frame of a run's stream as it comes, until the stream ends; throws where it breaks off. */
async function readFrames(
  runId: string,
  signal: AbortSignal,
  heard: (word: WireWord, samples: Trace) => void,
): Promise<void> {
  const response = await fetch(`/api/runs/${runId}/stream`, { signal });
  if (!response.ok || !response.body) throw new Error('The run cannot be followed.');
  const pieces = response.body.getReader();
  const reader = new FrameReader();
  for (;;) {
    const { done, value } = await pieces.read();
    if (done) return;
    const frames = reader.push(value);
    if (!frames) throw new Error('What came from the server is no run.');
    for (const { said, samples } of frames) heard(said as WireWord, samples);
  }
}

/** Follows a run from the server. A lost connection is made again and begins with everything recorded so far. */
export function useRunStream(runId: string | null, attempt: number): RunStream {
  const [stream, setStream] = useState<RunStream>(notYet);
  const pending = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => {
    if (runId === null) return;
    let samples: GrowingTrace = { time: [], columns: {} };
    let last: Pick<RunStream, 'state' | 'status' | 'silent'> = { state: 'connecting', status: null, silent: false };
    let heard = Date.now();
    let again: ReturnType<typeof setTimeout> | null = null;
    let connection = new AbortController();
    let begun = 0;
    let gone = false;
    /** How long the last picture took, ms. */
    let took = 0;
    const show = () => {
      // Many frames may come between two pictures: one redraw for all of them.
      pending.current ??= setTimeout(
        () => {
          pending.current = null;
          setStream((was) => ({ ...last, samples, version: was.version + 1 }));
          const asked = performance.now();
          took = drawnAtTheLatest / partForDrawing;
          requestAnimationFrame(() => setTimeout(() => (took = performance.now() - asked)));
        },
        Math.min(drawnAtTheLatest, Math.max(drawnEvery, partForDrawing * took)),
      );
    };
    const connect = () => {
      again = null;
      begun = Date.now();
      connection = new AbortController();
      readFrames(runId, connection.signal, ({ kind, state, status }, fresh) => {
        heard = Date.now();
        if (kind === 'whole') samples = { time: [], columns: {} };
        appendTo(samples, fresh);
        // A rig that runs fast records more in a minute than a screen can show in a day.
        if (samples.time.length > mostHeld) samples = growingFrom(thinned(asTrace(samples), thinnedTo));
        last = { state: state as StreamState, status: status ?? last.status, silent: false };
        show();
      })
        .catch(() => undefined)
        .finally(() => {
          if (!gone && !endStates.has(last.state)) again = setTimeout(connect, againAfter);
        });
    };
    connect();
    const watch = setInterval(() => {
      if (!endStates.has(last.state) && Date.now() - Math.max(heard, begun) > givenUpAfter) connection.abort();
      const silent = !endStates.has(last.state) && Date.now() - heard > silenceAfter;
      if (silent === last.silent) return;
      last = { ...last, silent };
      show();
    }, silenceAfter / 8);
    return () => {
      clearInterval(watch);
      if (again) clearTimeout(again);
      gone = true;
      connection.abort();
      if (pending.current) clearTimeout(pending.current);
      pending.current = null;
    };
  }, [runId, attempt]);
  return runId === null ? notYet : stream;
}
