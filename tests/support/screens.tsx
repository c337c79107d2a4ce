import { ThemeProvider } from '@mui/material/styles';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { render } from '@testing-library/react';
import type { ReactElement } from 'react';
import { kindNamed } from '@/core/families';
import type { AnyKind } from '@/core/contract/kind';
import type { PlanId } from '@/core/procedure/step-context';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import type { StepVerdict } from '@/core/vocabulary/verdict';
import type { JobView } from '@/server/views/job-view';
import { ShopProvider } from '@/ui/shell/shop-context';
import { theme } from '@/ui/theme/theme';

export const kind = kindNamed('vacuum-remote');

const people = [
  { id: 'ilse', name: 'Ilse Varga', role: 'bench lead' },
  { id: 'noor', name: 'Noor Halabi', role: 'technician' },
];

export const evaluation = (step: string, verdict: StepVerdict, over: Partial<StepEvaluation> = {}): StepEvaluation => ({
  step,
  verdict,
  optional: false,
  characteristics: [],
  checks: [],
  doubts: [],
  analyses: [],
  findings: null,
  ...over,
});

const failing: Partial<StepEvaluation> = {
  characteristics: [
    {
      kind: 'measured',
      id: 'vacuum-loss',
      estimate: { value: 5200, components: [{ source: 'gauge-gain', standard: 150, random: false }] },
    },
    { kind: 'absent', id: 'leak-flow', problem: { code: 'no-volume' } },
  ],
  checks: [
    {
      characteristic: 'vacuum-loss',
      guard: 300,
      verdict: { kind: 'fail', side: 'high' },
      limit: {
        characteristic: 'vacuum-loss',
        low: null,
        high: 3300,
        expected: 0,
        standard: 0,
        source: { kind: 'workshop', key: 'vacuumLoss' },
      },
    },
  ],
};

/** A job of a remote unit as the server would show it, every caution read. */
export function jobView(over: Partial<JobView> = {}, verdicts: Readonly<Record<string, StepVerdict>> = {}): JobView {
  return jobViewOf(kind, kind.plans[0].id, over, verdicts);
}

/** The same of any family's example on one of its plans. */
export function jobViewOf(
  kind: AnyKind,
  plan: PlanId,
  over: Partial<JobView> = {},
  verdicts: Readonly<Record<string, StepVerdict>> = {},
): JobView {
  return {
    job: {
      id: 'j1',
      number: 2601,
      serial: 'TK-2207-118',
      vehicle: 'Touring bus “Sorrel”',
      complaint: 'Hard pedal',
      symptoms: [],
      place: 'on-bench',
      bookedAt: '2026-11-23T08:00:00Z',
      bookedBy: 'Ilse Varga',
      promisedAt: null,
      plan,
      sheet: { family: kind.family, name: kind.sheet.example.name, spec: kind.sheet.example.spec },
      takenOutAt: null,
      behindOf: null,
      orderedBy: 'plan',
      version: 0,
    },
    familyTitle: kind.title,
    verdict: 'incomplete',
    steps: kind.steps.map((step) => ({
      id: step.id,
      title: step.title,
      why: step.why,
      minutes: step.minutes,
      kind: step.kind,
      cautions: step.cautions,
      shut: null,
      runs: [],
      evaluation: evaluation(step.id, verdicts[step.id] ?? 'not-run', verdicts[step.id] === 'fail' ? failing : {}),
    })),
    nextStep: 'look-over',
    openRun: null,
    conclusion: null,
    face: { input: [0, 1], low: [0, 1], high: [0, 2], measured: null },
    blocking: [{ job: 'j1', step: 'look-over', title: 'Look over', verdict: 'not-run' }],
    releases: [],
    overdue: [],
    undoable: [],
    aside: [],
    behind: null,
    inFront: null,
    rejudged: [],
    corrected: [],
    ledger: null,
    ledgerTrouble: 'no-table',
    likeliest: null,
    round: 1,
    repairs: [],
    due: [],
    verification: { kind: 'nothing-repaired' },
    before: [],
    cameBack: null,
    broken: [],
    clockRanBack: [],
    cautions: kind.steps.flatMap((step) => step.cautions.map((caution) => ({ caution, person: 'Ilse Varga', at: '' }))),
    ...over,
  };
}

// jsdom draws nothing, and looks every rule of every sheet up whenever it is asked how something looks: the sheets stay out of its page.
const unseenStyles = createCache({ key: 'css', container: document.createElement('div') });

/** Renders a screen in its theme and a shop of these people. */
export function show(element: ReactElement, who: typeof people = people) {
  return render(
    <CacheProvider value={unseenStyles}>
      <ThemeProvider theme={theme}>
        <ShopProvider shopName="Vennholm bench" people={who} zone="Europe/Vienna" today="2026-11-26">
          {element}
        </ShopProvider>
      </ThemeProvider>
    </CacheProvider>,
  );
}

export interface Asked {
  readonly path: string;
  readonly method?: string;
  readonly body: Record<string, unknown>;
}

/** The stream of a run in the hands of a test. */
export class FakeStream {
  static latest: FakeStream;
  private readonly pieces: { value: Uint8Array; done: boolean }[] = [];
  private wanted: ((piece: { value: Uint8Array; done: boolean }) => void) | null = null;
  constructor(
    readonly address: string,
    signal?: AbortSignal | null,
  ) {
    FakeStream.latest = this;
    signal?.addEventListener('abort', () => this.end());
  }
  readonly response = {
    ok: true,
    body: { getReader: () => ({ read: () => new Promise((resolve) => this.ask(resolve)) }) },
  };
  send(value: Uint8Array) {
    this.give({ value, done: false });
  }
  end() {
    this.give({ value: new Uint8Array(0), done: true });
  }
  private ask(resolve: NonNullable<FakeStream['wanted']>) {
    const piece = this.pieces.shift();
    if (piece) resolve(piece);
    else this.wanted = resolve;
  }
  private give(piece: { value: Uint8Array; done: boolean }) {
    const { wanted } = this;
    this.wanted = null;
    if (wanted) wanted(piece);
    else this.pieces.push(piece);
  }
}

/** The next requests are answered like this, and the result of a run with `result`; returns what was sent. */
export function answering(status: number, body: object, result = evaluation('boost-curve', 'undecided')): Asked[] {
  const asked: Asked[] = [];
  global.fetch = ((path: string, init?: RequestInit) => {
    if (path.endsWith('/stream')) return Promise.resolve(new FakeStream(path, init?.signal).response);
    if (path.endsWith('/result'))
      return Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve(result) });
    asked.push({
      path,
      method: init?.method,
      body: JSON.parse((init?.body as string) ?? '{}') as Record<string, unknown>,
    });
    return Promise.resolve({ ok: status < 400, status, json: () => Promise.resolve(body) });
  }) as unknown as typeof fetch;
  return asked;
}
