import { MessageChannel, Worker } from 'node:worker_threads';
import { RecorderHost, type RecordingNow, type RunCommand } from './recorder-host';
import type { FromRecorder, ToRecorder } from './recorder-messages';
import { ScreenFeed, type FeedEnd } from './screen-feed';
import { threadScript } from './thread-script';

/** What records, wherever it lives. */
interface Recorders {
  start(runId: string): Promise<unknown>;
  stop(runId: string): Promise<unknown>;
  abandon(runId: string): Promise<unknown>;
  command(runId: string, command: RunCommand): Promise<boolean>;
  /** Begins to send a run to a screen. The returned function says that the screen took so many bytes, or (null) that it has gone. */
  follow(runId: string, end: FeedEnd): (took: number | null) => void;
  now(runId: string): RecordingNow | undefined;
  isRecording(runId: string): boolean;
  /** Ends the thread; for tests and orderly ends. */
  end(): Promise<void>;
}

/** Recorders where they are asked for: in unit tests, and where no thread can be had. */
function recordersHere(): Recorders {
  const feeds = new Map<string, Set<ScreenFeed>>();
  const host = new RecorderHost((runId) => {
    for (const feed of feeds.get(runId) ?? []) feed.finish('complete');
    feeds.delete(runId);
  });
  return {
    start: (runId) => host.start(runId),
    stop: (runId) => host.stop(runId),
    abandon: (runId) => host.abandon(runId),
    command: async (runId, command) => host.command(runId, command),
    follow(runId, end) {
      const feed = new ScreenFeed(host, runId, end);
      if (!feed.follows) end.close();
      feeds.set(runId, (feeds.get(runId) ?? new Set()).add(feed));
      return (took) => (took === null ? feed.close() : feed.took(took));
    },
    now: (runId) => host.now().find((each) => each.runId === runId),
    isRecording: (runId) => host.statusOf(runId) !== null,
    end: async () => undefined,
  };
}

/** Without its question’s number: what is asked of the thread. */
type Asked = ToRecorder extends infer Each ? (Each extends { ask: number } ? Omit<Each, 'ask'> : never) : never;

/** Recorders on a thread of their own. One that ends is begun again with the next run; what it recorded was written as it went. */
function recordersOnThread(file: string): Recorders {
  const asked = new Map<number, { resolve(result: unknown): void; reject(error: Error): void }>();
  const running = new Set<string>();
  let latest: readonly RecordingNow[] = [];
  let asks = 0;
  const worker = new Worker(file, { env: { ...process.env } });
  worker.unref();
  worker.on('message', (message: FromRecorder) => {
    switch (message.kind) {
      case 'answer':
        asked.get(message.ask)?.resolve(message.result);
        return void asked.delete(message.ask);
      case 'failed': {
        const { message: text, code, status } = message;
        asked.get(message.ask)?.reject(Object.assign(new Error(text), { code, status }));
        return void asked.delete(message.ask);
      }
      case 'ended':
        return void running.delete(message.runId);
      case 'now':
        latest = message.recording;
    }
  });
  const gone = (error: Error) => {
    if (shared.hardPedalRecorders === recorders) delete shared.hardPedalRecorders;
    for (const each of asked.values()) each.reject(error);
    asked.clear();
    running.clear();
  };
  worker.on('error', (error: unknown) => {
    console.error('the thread that records has ended', error);
    gone(error instanceof Error ? error : new Error(String(error)));
  });
  worker.on('exit', () => gone(new Error('the thread that records has ended')));
  const ask = (message: Asked) =>
    new Promise<unknown>((resolve, reject) => {
      const number = ++asks;
      asked.set(number, { resolve, reject });
      worker.postMessage({ ...message, ask: number });
    });
  const recorders: Recorders = {
    async start(runId) {
      running.add(runId);
      try {
        return await ask({ kind: 'start', runId });
      } catch (error) {
        running.delete(runId);
        throw error;
      }
    },
    stop: (runId) => ask({ kind: 'stop', runId }),
    abandon: (runId) => ask({ kind: 'abandon', runId }),
    command: async (runId, command) => (await ask({ kind: 'command', runId, command })) === true,
    follow(runId, end) {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', (bytes: Uint8Array<ArrayBuffer>) => end.send(bytes));
      port1.on('close', () => end.close());
      worker.postMessage({ kind: 'follow', runId, port: port2 }, [port2]);
      return (took) => (took === null ? port1.close() : port1.postMessage(took));
    },
    now: (runId) => latest.find((each) => each.runId === runId),
    isRecording: (runId) => running.has(runId),
    end: async () => void (await worker.terminate()),
  };
  return recorders;
}

// One for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalRecorders?: Recorders };

/** What records in this process. */
export function recorders(): Recorders {
  if (shared.hardPedalRecorders) return shared.hardPedalRecorders;
  const file = process.env.HARD_PEDAL_THREADS === '0' ? null : threadScript('recorder-thread');
  return (shared.hardPedalRecorders = file === null ? recordersHere() : recordersOnThread(file));
}
