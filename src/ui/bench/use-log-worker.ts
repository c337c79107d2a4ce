'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { mappingInTodaysNames, type MappedColumn } from '@/core/formats/column-mapping';
import type { TimelinePart, TimelineWindow } from '@/core/pictures/timeline-window';
import type { LogFeed } from '@/core/procedure/step-definition';
import type { ReadProblem } from '@/core/vocabulary/read-problem';
import { send } from '@/ui/shell/request';
import type { LogAnswer, LogRequest } from '@/workers/log-messages';

type Judged = Extract<LogAnswer, { kind: 'judged' }>;
type Opened = Extract<LogAnswer, { kind: 'opened' }>;

/** Where reading a log file stands. */
export type LogState =
  | { readonly kind: 'empty' }
  | { readonly kind: 'reading'; readonly name: string; readonly share: number }
  | {
      readonly kind: 'mapped';
      readonly name: string;
      readonly opened: Opened;
      readonly mapping: readonly MappedColumn[];
      /** True when a log with these headers has been read before. */
      readonly remembered: boolean;
      /** What the log is about, where the step asks for that and somebody or the file has said so. */
      readonly said: string | null;
      readonly judged: Judged | null;
      readonly problems: readonly ReadProblem[];
      readonly problemCount: number;
    }
  | { readonly kind: 'unusable'; readonly name: string; readonly problems: readonly ReadProblem[] }
  | { readonly kind: 'sending'; readonly name: string; readonly share: number };

type OpenRequest = Omit<Extract<LogRequest, { kind: 'open' }>, 'kind' | 'file'>;

interface Sending {
  readonly jobId: string;
  readonly step: string;
  readonly person: string;
}

/** A log file read, mapped, judged and sent by a worker of its own; ended when the file is let go. */
export function useLogWorker(setting: OpenRequest, feed: LogFeed) {
  const [state, setState] = useState<LogState>({ kind: 'empty' });
  const worker = useRef<Worker | null>(null);
  useEffect(() => () => worker.current?.terminate(), []);

  const ask = useCallback((request: LogRequest) => worker.current?.postMessage(request), []);

  const judge = useCallback(
    (mapping: readonly MappedColumn[], leaveOut = false, saidNow?: string) => {
      const said = saidNow ?? (state.kind === 'mapped' ? state.said : null);
      // What was judged before belongs to another mapping and cannot be kept any more.
      setState((was) => (was.kind === 'mapped' ? { ...was, mapping, said, judged: null } : was));
      ask({ kind: 'judge', mapping, leaveOut, said });
    },
    [ask, state],
  );

  const cancel = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setState({ kind: 'empty' });
  }, []);

  const open = useCallback(
    (file: File) => {
      worker.current?.terminate();
      const made = new Worker(new URL('../../workers/log-worker.ts', import.meta.url));
      worker.current = made;
      const { name } = file;
      setState({ kind: 'reading', name, share: 0 });
      // Answers of a file that has been let go count no more.
      const current = () => worker.current === made;
      made.onmessage = ({ data }: MessageEvent<LogAnswer>) => {
        if (!current()) return;
        switch (data.kind) {
          case 'progress':
            return setState({ kind: 'reading', name, share: data.share });
          case 'opened':
            return void begin(data);
          case 'judged':
            return setState((was) =>
              was.kind === 'mapped' ? { ...was, judged: data, problems: [], problemCount: 0 } : was,
            );
          case 'unusable':
            return setState((was) =>
              was.kind === 'mapped'
                ? { ...was, judged: null, problems: data.problems, problemCount: data.count }
                : { kind: 'unusable', name, problems: data.problems },
            );
          case 'part':
          case 'window':
            return;
        }
      };
      made.onerror = (event) => {
        if (current())
          setState({ kind: 'unusable', name, problems: [{ code: 'unreadable', file: name, detail: event.message }] });
      };
      const begin = async (opened: Opened) => {
        const guessed = opened.guesses.map((guess) => guess.mapped);
        const known = await send<{ mapping: readonly MappedColumn[] | null }>('/api/mappings', {
          fingerprint: opened.fingerprint,
        }).catch(() => ({ mapping: null }));
        if (!current()) return;
        const mapping = known.mapping ? mappingInTodaysNames(feed, known.mapping) : guessed;
        setState({
          kind: 'mapped',
          name,
          opened,
          mapping,
          remembered: known.mapping !== null,
          said: opened.said,
          judged: null,
          problems: [],
          problemCount: 0,
        });
        made.postMessage({ kind: 'judge', mapping, leaveOut: false, said: null } satisfies LogRequest);
      };
      made.postMessage({ kind: 'open', file, ...setting } satisfies LogRequest);
    },
    [setting, feed],
  );

  /** Sends the judged trace part by part; nothing counts until the last one has arrived. */
  const keep = async ({ jobId, step, person }: Sending): Promise<void> => {
    const made = worker.current;
    if (state.kind !== 'mapped' || !state.judged || !made) return;
    const before = state;
    const { name, opened, mapping } = state;
    setState({ kind: 'sending', name, share: 0 });
    try {
      const { id } = await send<{ id: string }>(`/api/jobs/${jobId}/imports`, {
        step,
        person,
        file: { name, leftOut: state.judged.leftOut.slice(0, 5000) },
        fingerprint: opened.fingerprint,
        standIn: opened.standIn,
        mapping,
        // Nothing is sent before each question has been answered, by a person or by the name that the file gives.
        confirmed: [...state.judged.questioned.map(({ channel }) => channel), ...state.judged.called],
      });
      try {
        let coming: Promise<Part> | null = partOf(made, 0);
        for (let sequence = 0; coming !== null; sequence++) {
          const part: Part = await coming;
          // The next part is made ready while this one is on its way.
          coming = part.next === null ? null : partOf(made, part.next);
          const response = await fetch(`/api/runs/${id}/parts?sequence=${sequence}`, {
            method: 'PUT',
            body: part.bytes,
          });
          if (!response.ok) throw new Error(`The server did not take part ${sequence + 1} of the log.`);
          setState({ kind: 'sending', name, share: part.next === null ? 1 : part.next / opened.rows });
        }
        await send(`/api/runs/${id}/parts`, {});
      } catch (error) {
        await send(`/api/runs/${id}`, { action: 'discard', person }).catch(() => undefined);
        throw error;
      }
    } catch (error) {
      setState(before);
      throw error;
    }
  };

  /** A part of the judged log's time-line. */
  const look = useCallback((window: TimelineWindow): Promise<TimelinePart> => {
    const made = worker.current;
    return new Promise((resolve, reject) => {
      if (!made) return reject(new Error('This log has been let go.'));
      const heard = ({ data }: MessageEvent<LogAnswer>) => {
        if (data.kind !== 'window') return;
        made.removeEventListener('message', heard);
        resolve(data.timeline);
      };
      made.addEventListener('message', heard);
      made.postMessage({ kind: 'window', window } satisfies LogRequest);
    });
  }, []);

  return { state, open, judge, cancel, keep, look };
}

type Part = Extract<LogAnswer, { kind: 'part' }>;

function partOf(worker: Worker, from: number): Promise<Part> {
  return new Promise((resolve) => {
    const heard = ({ data }: MessageEvent<LogAnswer>) => {
      if (data.kind !== 'part') return;
      worker.removeEventListener('message', heard);
      resolve(data);
    };
    worker.addEventListener('message', heard);
    worker.postMessage({ kind: 'part', from } satisfies LogRequest);
  });
}
