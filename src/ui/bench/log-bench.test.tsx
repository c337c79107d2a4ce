import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { packFrame } from '@/core/traces/frame';
import { makeTrace } from '@/core/traces/trace';
import type { Inference } from '@/core/formats/guess-mapping';
import type { MappedColumn } from '@/core/formats/column-mapping';
import type { LogAnswer, LogRequest } from '@/workers/log-messages';
import { evaluation, jobView, show } from '../../../tests/support/screens';
import { push } from '../../../tests/support/router';
import { LogBench } from './log-bench';

/** The log's worker in the hands of the test. */
class FakeWorker {
  static latest: FakeWorker;
  readonly asked: LogRequest[] = [];
  ended = false;
  onmessage: ((event: { data: LogAnswer }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;
  private readonly listeners = new Set<(event: { data: LogAnswer }) => void>();
  constructor() {
    FakeWorker.latest = this;
  }
  postMessage(request: LogRequest) {
    this.asked.push(request);
    if (request.kind === 'part')
      queueMicrotask(() =>
        this.hear({
          kind: 'part',
          bytes: new ArrayBuffer(16),
          next: request.from === 0 ? 60_000 : null,
        }),
      );
  }
  hear(data: LogAnswer) {
    this.onmessage?.({ data });
    for (const listener of this.listeners) listener({ data });
  }
  addEventListener(_type: string, listener: (event: { data: LogAnswer }) => void) {
    this.listeners.add(listener);
  }
  removeEventListener(_type: string, listener: (event: { data: LogAnswer }) => void) {
    this.listeners.delete(listener);
  }
  terminate() {
    this.ended = true;
  }
}

const guessed: readonly MappedColumn[] = [
  { use: 'time', unit: 's' },
  { use: 'channel', channel: 'supply_vacuum', unit: 'bar', sign: -1, absolute: false },
];
const openedLog: Extract<LogAnswer, { kind: 'opened' }> = {
  kind: 'opened',
  headers: ['t', 'vac (bar)'],
  fingerprint: 't|vac (bar)',
  standIn: false,
  rows: 70_000,
  repeatedHeaders: 0,
  noticed: [],
  said: null,
  guesses: [
    { mapped: guessed[0], inferred: ['unit-assumed'] },
    { mapped: guessed[1], inferred: ['channel-from-words', 'sign-turned'] },
  ],
};
const judged = (over: Partial<Extract<LogAnswer, { kind: 'judged' }>> = {}): LogAnswer => ({
  kind: 'judged',
  result: evaluation('vacuum-draw', 'pass'),
  preview: packFrame(makeTrace(Float64Array.of(0, 1, 2), { supply_vacuum: Float64Array.of(0, 40e3, 60e3) })).buffer,
  others: [],
  timeline: null,
  leftOut: [],
  repeatedTimes: 0,
  questioned: [],
  called: [],
  ...over,
});

interface Sent {
  readonly path: string;
  readonly method: string;
  readonly body: unknown;
}

/** Answers every request; `refuse` says which are refused. */
function serving(known: readonly MappedColumn[] | null = null, refuse: (path: string) => boolean = () => false) {
  const sent: Sent[] = [];
  global.fetch = ((path: string, init?: RequestInit) => {
    const body: unknown = typeof init?.body === 'string' ? JSON.parse(init.body) : init?.body;
    sent.push({ path, method: init?.method ?? 'GET', body });
    const answer = path.endsWith('/mappings') ? { mapping: known } : { id: 'r7', message: 'No room.', fields: {} };
    const ok = !refuse(path);
    return Promise.resolve({ ok, status: ok ? 200 : 500, json: () => Promise.resolve(answer) });
  }) as unknown as typeof fetch;
  return sent;
}

const site = { altitudeM: 1420, airTemperatureC: 11 };
const bench = () =>
  show(
    <LogBench
      view={jobView()}
      step="vacuum-draw"
      site={site}
      date="2026-11-24T10:00:00Z"
      air="Air 85.4 kPa"
      policy="guarded"
    />,
  );
const headline = () => screen.getByRole('heading', { level: 1 });
const choose = (name = 'draw.csv') =>
  act(async () => fireEvent.change(screen.getByLabelText('Log file'), { target: { files: [new File(['t'], name)] } }));
const hear = (answer: LogAnswer) => act(async () => FakeWorker.latest.hear(answer));

async function mapped(known: readonly MappedColumn[] | null = null, refuse?: (path: string) => boolean) {
  const sent = serving(known, refuse);
  bench();
  await choose();
  await hear(openedLog);
  await waitFor(() => expect(headline()).toHaveTextContent('Is this how its columns are meant?'));
  return sent;
}

beforeEach(() => {
  Object.assign(globalThis, { Worker: FakeWorker });
});

describe('what is asked about a log', () => {
  const asking = (inferred: readonly Inference[]): LogAnswer => ({
    ...openedLog,
    guesses: [openedLog.guesses[0], { mapped: guessed[1], inferred }],
  });

  it('an unknown unit or an unlikely scale keeps it from being kept until it is answered', async () => {
    const sent = serving();
    bench();
    await choose();
    await hear(asking(['scale-questioned']));
    await hear(judged());
    fireEvent.click(await screen.findByRole('button', { name: /Keep this log/ }));
    expect(await screen.findByRole('alert')).toHaveTextContent('Answer first');
    expect(sent.some(({ path }) => path.endsWith('/imports'))).toBe(false);
    fireEvent.click(screen.getByRole('button', { name: 'it is so' }));
    expect(screen.queryByRole('list', { name: 'To be answered' })).not.toBeInTheDocument();
    fireEvent.click(screen.getByRole('button', { name: /Keep this log/ }));
    await waitFor(() => expect(sent.some(({ path }) => path.endsWith('/imports'))).toBe(true));
  });

  it('a column that was mapped by hand is asked about by its figures, and sent with the answer', async () => {
    const sent = serving(null);
    bench();
    await choose();
    await hear(openedLog);
    await hear(judged({ questioned: [{ channel: 'supply_vacuum', why: 'reference-open' }] }));
    expect(await screen.findByRole('list', { name: 'To be answered' })).toHaveTextContent('as an absolute pressure');
    fireEvent.click(screen.getByRole('button', { name: /Keep this log/ }));
    expect(await screen.findByRole('alert')).toHaveTextContent('Answer first');
    fireEvent.click(screen.getByRole('button', { name: 'it is so' }));
    fireEvent.click(screen.getByRole('button', { name: /Keep this log/ }));
    await waitFor(() =>
      expect(sent.find(({ path }) => path.endsWith('/imports'))?.body).toMatchObject({ confirmed: ['supply_vacuum'] }),
    );
  });

  it('a remembered mapping that does not fit this file says so', async () => {
    serving([guessed[0], { ...guessed[1], sign: 1 } as MappedColumn]);
    bench();
    await choose();
    await hear(asking(['channel-from-words', 'sign-turned']));
    expect(await screen.findByRole('list', { name: 'To be answered' })).toHaveTextContent(
      'looks otherwise in this file',
    );
  });
});

describe('a step fed from a log', () => {
  it('says what it needs, and reads the chosen file in a worker, with its progress', async () => {
    serving();
    bench();
    expect(screen.getByText(/This step needs supply/)).toHaveTextContent('Log 5 readings a second or more.');
    await choose();
    expect(FakeWorker.latest.asked[0]).toMatchObject({ kind: 'open', step: 'vacuum-draw', site, policy: 'guarded' });
    await hear({ kind: 'progress', share: 0.42 });
    expect(headline()).toHaveTextContent('Reading draw.csv');
    expect(screen.getByRole('progressbar')).toHaveAttribute('aria-valuenow', '42');
  });

  it('takes a file that is dropped, and lets go of one that is being read', async () => {
    serving();
    bench();
    const place = screen.getByText('Drop the log here, or choose it.').parentElement!;
    await act(async () => fireEvent.drop(place, { dataTransfer: { files: [new File(['t'], 'dropped.csv')] } }));
    expect(headline()).toHaveTextContent('Reading dropped.csv');
    const { latest } = FakeWorker;
    fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(latest.ended).toBe(true);
    expect(headline()).toHaveTextContent('bring the log of it');
    // What it says afterwards is not heard any more.
    await act(async () => latest.hear(openedLog));
    expect(headline()).toHaveTextContent('bring the log of it');
  });

  it('shows how every column was understood, over the picture of what it should be', async () => {
    await mapped();
    expect(screen.getByLabelText('What vac (bar) is')).toHaveValue('supply_vacuum');
    expect(screen.getByLabelText('Unit of vac (bar)')).toHaveValue('bar');
    expect(screen.getByLabelText('How vac (bar) is read')).toHaveValue('negative');
    expect(screen.getByText('guessed from its words, negative: sign turned')).toBeInTheDocument();
    expect(screen.getByRole('img')).toBeInTheDocument();
    expect(FakeWorker.latest.asked[1]).toEqual({ kind: 'judge', mapping: guessed, leaveOut: false, said: null });
    await hear(judged({ repeatedTimes: 3 }));
    expect(screen.getByRole('heading', { name: /This log/ })).toHaveTextContent('Pass');
    expect(screen.getByText('70,000 rows, 2 columns, 3 repeat a time')).toBeInTheDocument();
  });

  it('understands a log with known headers as the last one, without guessing', async () => {
    const known: readonly MappedColumn[] = [guessed[0], { ...guessed[1], unit: 'kPa' } as MappedColumn];
    await mapped(known);
    expect(screen.getByText('Understood as the last log with these headers.')).toBeInTheDocument();
    expect(screen.getByLabelText('Unit of vac (bar)')).toHaveValue('kPa');
    expect(screen.queryByText(/guessed from its words/)).not.toBeInTheDocument();
  });

  it.each<[string, string, string, Partial<MappedColumn>]>([
    ['what it is', 'What vac (bar) is', 'control_vacuum', { channel: 'control_vacuum', unit: 'bar', sign: 1 }],
    ['that it is left out', 'What vac (bar) is', 'skip', { use: 'skip' }],
    ['that it is the clock', 'What vac (bar) is', 'time', { use: 'time', unit: 's' }],
    ['its unit', 'Unit of vac (bar)', 'inHg', { unit: 'inHg', sign: -1 }],
    ['that it is absolute', 'How vac (bar) is read', 'absolute', { absolute: true, sign: 1 }],
    ['that it is plain', 'How vac (bar) is read', 'plain', { absolute: false, sign: 1 }],
  ])('is judged anew when a column is told %s, and is not kept before that', async (_what, label, to, expected) => {
    await mapped();
    await hear(judged());
    expect(screen.getByRole('button', { name: /Keep this log/ })).toBeInTheDocument();
    await act(async () => fireEvent.change(screen.getByLabelText(label), { target: { value: to } }));
    expect(screen.queryByRole('button', { name: /Keep this log/ })).not.toBeInTheDocument();
    expect(screen.getByText('Being judged …')).toBeInTheDocument();
    const request = FakeWorker.latest.asked.at(-1);
    expect(request).toMatchObject({ kind: 'judge', mapping: [guessed[0], expected] });
    await hear(judged());
    expect(screen.getByRole('button', { name: /Keep this log/ })).toBeInTheDocument();
  });

  it('lists bad rows, and leaves them out only when that is asked for', async () => {
    await mapped();
    const problems = Array.from(
      { length: 8 },
      (_, i) => ({ code: 'not-a-number', file: 'draw.csv', line: 10 + i, column: 'supply_vacuum', text: 'x' }) as const,
    );
    await hear({ kind: 'unusable', problems, count: 11 });
    expect(headline()).toHaveTextContent('Some rows cannot be used');
    expect(within(screen.getByRole('alert')).getAllByRole('listitem')).toHaveLength(8);
    expect(screen.getByText('and 3 more.')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Keep this log/ })).not.toBeInTheDocument();
    fireEvent.click(screen.getByRole('button', { name: /Leave these 11 rows out/ }));
    expect(FakeWorker.latest.asked.at(-1)).toEqual({ kind: 'judge', mapping: guessed, leaveOut: true, said: null });
    await hear(judged({ leftOut: ['line 10', 'line 11'] }));
    expect(screen.getByText(/2 left out/)).toBeInTheDocument();
  });

  it('cannot leave a missing column out', async () => {
    await mapped();
    const problem = {
      code: 'missing-channel',
      file: 'draw.csv',
      line: 1,
      channel: 'supply_vacuum',
      step: 'x',
    } as const;
    await hear({ kind: 'unusable', problems: [problem], count: 1 });
    expect(screen.getByRole('alert')).toHaveTextContent('supply_vacuum');
    expect(screen.queryByRole('button', { name: /Leave .* out/ })).not.toBeInTheDocument();
  });

  it('says why a file cannot be used, and takes another', async () => {
    serving();
    bench();
    await choose('photo.csv');
    await hear({ kind: 'unusable', problems: [{ code: 'not-text', file: 'photo.csv' }], count: 1 });
    expect(headline()).toHaveTextContent('photo.csv cannot be used');
    expect(screen.getByRole('alert')).toHaveTextContent('photo.csv');
    await choose('draw.csv');
    expect(headline()).toHaveTextContent('Reading draw.csv');
  });

  it('says so when the worker breaks', async () => {
    serving();
    bench();
    await choose();
    await act(async () => FakeWorker.latest.onerror?.({ message: 'out of memory' }));
    expect(screen.getByRole('alert')).toHaveTextContent('out of memory');
  });

  it('is kept on Enter, part by part, and goes on to the next step', async () => {
    const sent = await mapped();
    await hear(judged({ leftOut: ['line 12'] }));
    await act(async () => fireEvent.keyDown(document.body, { key: 'Enter', code: 'Enter' }));
    await waitFor(() => expect(push).toHaveBeenCalledWith('/jobs/j1/bench/vacuum-hold-rest'));
    expect(sent.slice(1).map(({ method, path }) => `${method} ${path}`)).toEqual([
      'POST /api/jobs/j1/imports',
      'PUT /api/runs/r7/parts?sequence=0',
      'PUT /api/runs/r7/parts?sequence=1',
      'POST /api/runs/r7/parts',
    ]);
    expect(sent[1].body).toMatchObject({
      step: 'vacuum-draw',
      person: 'Ilse Varga',
      file: { name: 'draw.csv', leftOut: ['line 12'] },
      mapping: guessed,
      standIn: false,
    });
  });

  it('one that the server did not take whole is thrown away there, and can be kept again from here', async () => {
    const sent = await mapped(null, (path) => path.includes('sequence=1'));
    await hear(judged());
    fireEvent.click(screen.getByRole('button', { name: /Keep this log/ }));
    expect(await screen.findByText('The server did not take part 2 of the log.')).toBeInTheDocument();
    expect(sent.at(-1)).toMatchObject({ path: '/api/runs/r7', body: { action: 'discard' } });
    expect(push).not.toHaveBeenCalled();
    expect(screen.getByRole('button', { name: /Keep this log/ })).toBeInTheDocument();
  });
});
