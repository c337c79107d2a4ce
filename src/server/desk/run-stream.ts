import { recorders } from '../recording/recorders';
import { heavy } from '../threads/pool';
import { runNamed } from '../context/job-context';

const headers = { 'Content-Type': 'application/octet-stream', 'Cache-Control': 'no-cache, no-transform' };

/** As much as a screen's connection holds before its feed is told to wait, bytes. */
const roomOfScreen = 1_000_000;

/**
 * A run as frames, one after the other: everything recorded so far, then every new sample until the run is complete or the
 * screen goes away. A run that is not being recorded sends what the database has.
 */
export async function runStream(id: string, signal: AbortSignal): Promise<Response> {
  const run = await runNamed(id).catch(() => null);
  if (!run) return Response.json({ message: 'This run is not recorded here.' }, { status: 404 });
  const recording = recorders();
  if (run.state !== 'recording' || !recording.isRecording(id)) {
    const state = run.state === 'recording' ? 'interrupted' : run.state;
    return new Response(await heavy('frame', { runId: id, state }, signal), { headers });
  }
  let tell: (took: number | null) => void = () => undefined;
  let sent = 0;
  let closed = false;
  const body = new ReadableStream<Uint8Array>(
    {
      start(controller) {
        const close = () => {
          if (closed) return;
          closed = true;
          controller.close();
        };
        tell = recording.follow(id, {
          send(bytes) {
            if (closed) return;
            controller.enqueue(bytes);
            // What the connection takes at once is taken; the rest when it asks for more.
            if ((controller.desiredSize ?? 0) > 0) tell(bytes.byteLength);
            else sent += bytes.byteLength;
          },
          close,
        });
        signal.addEventListener('abort', () => {
          tell(null);
          close();
        });
      },
      pull() {
        if (sent > 0) tell(sent);
        sent = 0;
      },
      cancel() {
        closed = true;
        tell(null);
      },
    },
    { highWaterMark: roomOfScreen, size: (chunk) => chunk?.byteLength ?? 0 },
  );
  return new Response(body, { headers });
}
