import { standInUnit } from '../../tests/support/stand-in-unit';
import { kindNamed } from '@/core/families';
import { standInSource, writeBenchLog } from '@/core/formats/bench-log';
import { readFrame } from '@/core/traces/frame';
import type { LogAnswer, LogRequest } from './log-messages';

type Said = Extract<LogAnswer, { kind: 'judged' | 'unusable' | 'opened' | 'part' }>;

const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 620 };

/** The worker as the page sees it: what is asked, and what it said last. */
async function worker() {
  const said: LogAnswer[] = [];
  const self = { postMessage: (answer: LogAnswer) => said.push(answer), onmessage: null as unknown };
  (globalThis as { self?: unknown }).self = self;
  await jest.isolateModulesAsync(async () => void (await import('./log-worker')));
  const hear = self.onmessage as (event: { data: LogRequest }) => void;
  const ask = async (data: LogRequest): Promise<Said> => {
    const before = said.length;
    hear({ data });
    for (let i = 0; i < 400; i++) {
      const answer = said.slice(before).find((each): each is Said => each.kind !== 'progress');
      if (answer) return answer;
      await new Promise((resolve) => setTimeout(resolve, 10));
    }
    throw new Error(`no answer to ${data.kind}`);
  };
  return { ask, said };
}

function samplesIn(bytes: ArrayBuffer) {
  const read = readFrame(new Uint8Array(bytes));
  if (read.kind !== 'frame') throw new Error(read.kind);
  return read.frame.samples;
}

const remote = standInUnit('vacuum-remote', 'bench');
const sheetOf = (kind: typeof remote.kind) => ({
  family: 'vacuum-remote',
  name: kind.sheet.example.name,
  spec: kind.sheet.example.spec,
});

function opening(file: File, over: Partial<Extract<LogRequest, { kind: 'open' }>> = {}): LogRequest {
  return {
    kind: 'open',
    file,
    job: { sheet: sheetOf(remote.kind), plan: 'bench' },
    step: 'vacuum-draw',
    site,
    date: '2026-11-24',
    corrections: remote.context.corrections,
    policy: 'guarded',
    ...over,
  };
}

const logOf = (unit: typeof remote, step: string, faults = [] as { id: string; severity: number }[]) =>
  new File([writeBenchLog(unit.trace(step, faults), { source: standInSource })], `${step}.csv`);

async function opened(file: File, over: Parameters<typeof opening>[1] = {}) {
  const { ask, said } = await worker();
  const answer = await ask(opening(file, over));
  if (answer.kind !== 'opened') throw new Error(JSON.stringify(answer));
  const judge = (leaveOut = false, about: string | null = null) =>
    ask({ kind: 'judge', mapping: answer.guesses.map((guess) => guess.mapped), leaveOut, said: about });
  return { ask, said, answer, judge };
}

describe('a log that is about one of several sensors', () => {
  const plunger = kindNamed('brake-by-wire', 'plunger');
  const sheet = {
    family: plunger.family,
    name: plunger.sheet.example.name,
    spec: plunger.sheet.example.spec as object,
  };
  const rows = [0, 4000, 11_000].flatMap((kpa, level) =>
    Array.from({ length: 30 }, (_, i) => `${level * 3 + i / 10},${kpa},5,${0.5 + kpa * 0.00016}`),
  );
  const log = (head: string) =>
    new File(
      [`${head}time [s],reference_pressure [kPa],sensor_supply [V],sensor_a [V]\n${rows.join('\n')}\n`],
      'sensor.csv',
    );
  const over = { job: { sheet, plan: 'bench' }, step: 'sensor-transfer' } as const;

  it('says which the file says it is, and takes somebody’s word where it says none', async () => {
    const read = async (judged: Promise<LogAnswer>, id: string) => {
      const answer = await judged;
      if (answer.kind !== 'judged') throw new Error(JSON.stringify(answer));
      return answer.result.characteristics.find((each) => each.id === id)?.kind;
    };
    const named = await opened(log('# sensor: rr\n'), over);
    expect(named.answer.said).toBe('rr');
    expect(await read(named.judge(), 'sensor-gain@rr')).toBe('measured');
    const silent = await opened(log(''), over);
    expect(silent.answer.said).toBeNull();
    expect(await read(silent.judge(), 'sensor-gain@fl')).toBe('absent');
    expect(await read(silent.judge(false, 'fl'), 'sensor-gain@fl')).toBe('measured');
  });
});

describe('a log in its worker', () => {
  it('is opened with its guesses, judged as the bench would, and thinned for the preview', async () => {
    const { answer, judge } = await opened(logOf(remote, 'vacuum-draw'));
    expect(answer).toMatchObject({ standIn: true, rows: remote.trace('vacuum-draw').time.length });
    const judged = await judge();
    if (judged.kind !== 'judged') throw new Error(JSON.stringify(judged));
    expect(judged.result.verdict).toBe('pass');
    const { time, columns } = samplesIn(judged.preview);
    expect(time.length).toBeLessThan(answer.rows);
    expect(time.toSorted()).toEqual(time);
    // Thinned, and still as high as it was.
    const highest = Math.max(...remote.trace('vacuum-draw').columns.supply_vacuum);
    expect(Math.max(...columns.supply_vacuum) / highest).toBeCloseTo(1, 6);
  });

  it('gives its trace in parts, every sample once', async () => {
    const time = Float64Array.from({ length: 65_000 }, (_, i) => i / 200);
    const text = writeBenchLog({ time, columns: { supply_vacuum: time.map((t) => 60e3 - t) } }, {});
    const { ask, judge } = await opened(new File([text], 'long.csv'));
    await judge();
    const clock: number[] = [];
    let next: number | null = 0;
    let parts = 0;
    for (; next !== null; parts++) {
      const part: Said = await ask({ kind: 'part', from: next });
      if (part.kind !== 'part') throw new Error(part.kind);
      clock.push(...samplesIn(part.bytes).time);
      next = part.next;
    }
    expect(parts).toBe(6);
    expect(Float64Array.from(clock)).toEqual(time.map((t) => Number(t.toFixed(6))));
  });

  it('is understood under the names that its channels had before', async () => {
    const valve = standInUnit('pedal-valve', 'bench');
    const { time, columns } = valve.trace('parking-release');
    const before = { output_pressure: columns.parking_pressure, lamp_amber: columns.parking_brake };
    const file = new File([writeBenchLog({ time, columns: before }, {})], 'before.csv');
    const sheet = { family: 'pedal-valve', name: 'DV2', spec: valve.kind.sheet.example.spec };
    const { answer, judge } = await opened(file, { job: { sheet, plan: 'bench' }, step: 'parking-release' });
    const mapping = answer.guesses.map((guess) => guess.mapped);
    expect(mapping.flatMap((column) => (column.use === 'channel' ? [column.channel] : []))).toEqual([
      'parking_pressure',
      'parking_brake',
    ]);
    expect(await judge()).toMatchObject({ kind: 'judged', result: { verdict: 'pass' } });
  });

  it('is judged by the steps of its own layout', async () => {
    const force = standInUnit('vacuum-remote', 'bench', { layout: 'servo-cylinder' });
    const job = { sheet: sheetOf(force.kind), plan: 'bench' } as const;
    const { judge } = await opened(logOf(force, 'boost-curve'), { job, step: 'boost-curve' });
    const judged = await judge();
    if (judged.kind !== 'judged') throw new Error(JSON.stringify(judged));
    expect(judged.result.characteristics.map((each) => each.id)).toContain('servo-force');
    expect(judged.result.verdict).toBe('pass');
  });

  it('with bad rows lists them by line, and judges what is left once that is asked for', async () => {
    const lines = (await logOf(remote, 'vacuum-draw').text()).trimEnd().split('\n');
    const at = lines.findIndex((line) => line.startsWith('time'));
    lines[at + 5] = lines[at + 5].replace(/^[^,]+/, 'soon');
    lines[at + 9] = '1,2';
    const { judge } = await opened(new File([lines.join('\n')], 'damaged.csv'));
    const refused = await judge();
    if (refused.kind !== 'unusable') throw new Error(refused.kind);
    expect(refused.count).toBe(2);
    expect(refused.problems).toMatchObject([{ line: at + 6 }, { line: at + 10 }]);
    const judged = await judge(true);
    expect(judged).toMatchObject({ kind: 'judged', leftOut: [`line ${at + 6}`, `line ${at + 10}`] });
  });

  it.each([
    ['binary', new File(['ELF\u0000\u0001'], 'a.out'), 'not-text'],
    ['empty', new File([''], 'empty.csv'), 'empty-file'],
  ])('a %s file is refused by name', async (_what, file, code) => {
    const { ask } = await worker();
    expect(await ask(opening(file))).toMatchObject({ kind: 'unusable', problems: [{ code, file: file.name }] });
  });

  it('a file that can no longer be read is said to be so, instead of being read for ever', async () => {
    const gone = new File(['time\n'], 'gone.csv');
    gone.arrayBuffer = () => Promise.reject(new Error('The requested file could not be read'));
    const { ask } = await worker();
    expect(await ask(opening(gone))).toMatchObject({
      kind: 'unusable',
      problems: [{ code: 'unreadable', file: 'gone.csv', detail: 'The requested file could not be read' }],
    });
  });
});
