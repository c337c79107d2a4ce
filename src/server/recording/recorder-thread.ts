import { parentPort, type MessagePort } from 'node:worker_threads';
import { findRun } from '@/data/runs';
import type { FromRecorder, ToRecorder } from './recorder-messages';
import { RecorderHost } from './recorder-host';
import { ScreenFeed } from './screen-feed';
import { writeOnThread } from './write-on-thread';

/* The thread that records: commands in, frames out to each screen on a port of its own. What it writes goes to the thread that writes. */

const say = (message: FromRecorder) => parentPort?.postMessage(message);
const feeds = new Map<string, Set<ScreenFeed>>();

const host = new RecorderHost((runId) => {
  say({ kind: 'ended', runId });
  void findRun(runId).then((run) => {
    for (const feed of feeds.get(runId) ?? []) feed.finish(run?.state ?? 'discarded');
    feeds.delete(runId);
  });
}, writeOnThread());

function follow(runId: string, port: MessagePort): void {
  const feed = new ScreenFeed(host, runId, {
    send: (bytes) => port.postMessage(bytes, [bytes.buffer]),
    close: () => {
      feeds.get(runId)?.delete(feed);
      port.close();
    },
  });
  if (!feed.follows) return port.close();
  const all = feeds.get(runId) ?? new Set();
  feeds.set(runId, all.add(feed));
  port.on('message', (took: number) => feed.took(took));
  port.on('close', () => feed.close());
}

async function answer(message: Exclude<ToRecorder, { kind: 'follow' }>): Promise<unknown> {
  switch (message.kind) {
    case 'start':
      return host.start(message.runId);
    case 'command':
      return host.command(message.runId, message.command);
    case 'stop':
      return host.stop(message.runId);
    case 'abandon':
      return host.abandon(message.runId);
  }
}

parentPort?.on('message', (message: ToRecorder) => {
  if (message.kind === 'follow') return follow(message.runId, message.port);
  const { ask } = message;
  answer(message).then(
    (result) => say({ kind: 'answer', ask, result }),
    (error: Error & { code?: unknown; status?: unknown }) =>
      say({ kind: 'failed', ask, message: error.message, code: error.code, status: error.status }),
  );
});

/** Who does not follow a run sample by sample is told of it so often, ms. */
setInterval(() => say({ kind: 'now', recording: host.now() }), 500);
