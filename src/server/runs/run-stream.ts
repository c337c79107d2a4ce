import { concatTraces } from '@/core/traces/trace';
import { heavy } from '../threads/pool';
import { wire } from './wire-frame';
import { findRun } from '@/data/runs';
import { recorderOf, runNamed } from './bench-runs';
import type { RunFrame } from './run-recorder';

/** Time between two signs of life, ms. */
const heartbeat = 800;

/**
 * Server-sent events of a run: everything recorded so far, then every new sample until the run is complete or the
 * screen goes away. A run that is not being recorded sends what the database has.
 */
export async function runStream(id: string, signal: AbortSignal): Promise<Response> {
  const run = await runNamed(id).catch(() => null);
  if (!run) return Response.json({ message: 'This run is not recorded here.' }, { status: 404 });
  const recorder = recorderOf(id);
  const encoder = new TextEncoder();
  let stop = () => {};
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      if (!recorder) {
        const state = run.state === 'recording' ? 'interrupted' : run.state;
        controller.enqueue(encoder.encode(await heavy('frame', { runId: id, state }, signal)));
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
      const nothing = concatTraces([]);
      // A screen must be able to tell a slow gauge from a lost connection, and is told when another screen has ended the run.
      const beat = async () => {
        if (recorderOf(id) === recorder)
          return void (open && say(wire('more', 'recording', nothing, recorder.status())));
        const state = (await findRun(id))?.state ?? 'discarded';
        if (open) say(wire('more', state === 'recording' ? 'interrupted' : state, nothing, null));
        close();
      };
      const say = (text: string) => controller.enqueue(encoder.encode(text));
      const heart = setInterval(() => void beat().catch(close), heartbeat);
      const send = ({ kind, samples, status }: RunFrame) => {
        if (!open) return;
        const ended = status.done && recorderOf(id) === undefined;
        controller.enqueue(encoder.encode(wire(kind, ended ? 'complete' : 'recording', samples, status)));
        if (ended) close();
      };
      signal.addEventListener('abort', close);
      stop = recorder.listen(send);
    },
    cancel: () => stop(),
  });
  return new Response(body, {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' },
  });
}
