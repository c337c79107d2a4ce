import { concatTraces } from '@/core/traces/trace';
import { heavy } from '../threads/pool';
import { wire, type WireWord } from './wire-frame';
import { findRun } from '@/data/runs';
import { recorderOf, runNamed } from './bench-runs';
import type { RunFrame } from './run-recorder';

const nothing = concatTraces([]);

/** Time between two signs of life, ms. */
const heartbeat = 800;

/**
 * A run as frames, one after the other: everything recorded so far, then every new sample until the run is complete or the
 * screen goes away. A run that is not being recorded sends what the database has.
 */
export async function runStream(id: string, signal: AbortSignal): Promise<Response> {
  const run = await runNamed(id).catch(() => null);
  if (!run) return Response.json({ message: 'This run is not recorded here.' }, { status: 404 });
  const recorder = recorderOf(id);
  let stop = () => {};
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      if (!recorder) {
        const state = run.state === 'recording' ? 'interrupted' : run.state;
        controller.enqueue(await heavy('frame', { runId: id, state }, signal));
        controller.close();
        return;
      }
      let open = true;
      const close = () => {
        if (!open) return;
        open = false;
        clearInterval(heart);
        stop();
        controller.close();
      };
      const say = (word: WireWord, samples = nothing) => void (open && controller.enqueue(wire(word, samples)));
      // A screen must be able to tell a slow gauge from a lost connection, and is told when another screen has ended the run.
      const beat = async () => {
        if (recorderOf(id) === recorder) return say({ kind: 'more', state: 'recording', status: recorder.status() });
        const state = (await findRun(id))?.state ?? 'discarded';
        say({ kind: 'more', state: state === 'recording' ? 'interrupted' : state, status: null });
        close();
      };
      const heart = setInterval(() => void beat().catch(close), heartbeat);
      const send = ({ kind, samples, status }: RunFrame) => {
        const ended = status.done && recorderOf(id) === undefined;
        say({ kind, state: ended ? 'complete' : 'recording', status }, samples);
        if (ended) close();
      };
      signal.addEventListener('abort', close);
      stop = recorder.listen(send);
    },
    cancel: () => stop(),
  });
  return new Response(body, {
    headers: { 'Content-Type': 'application/octet-stream', 'Cache-Control': 'no-cache, no-transform' },
  });
}
