import fc from 'fast-check';
import { inferReference } from './infer-reference';

const vacuum = { dimension: 'pressure', reference: 'vacuum' } as const;
const gauge = { dimension: 'pressure', reference: 'gauge' } as const;
const force = { dimension: 'force' } as const;
const ambient = 85_400;
const column = (at: (share: number) => number) => Float64Array.from({ length: 200 }, (_, i) => at(i / 199));
const kind = (channel: typeof vacuum | typeof gauge | typeof force, at: (share: number) => number, called = false) =>
  inferReference(channel, column(at), ambient, called).kind;

describe('sign and reference of a column', () => {
  it('a vacuum drawn from nothing, held, or let go again is what it is called', () => {
    expect(kind(vacuum, (t) => 58e3 * Math.min(1, 3 * t))).toBe('as-written');
    expect(kind(vacuum, (t) => 58e3 - 3e3 * t)).toBe('as-written');
    expect(kind(vacuum, (t) => 58e3 * (1 - t))).toBe('as-written');
  });

  it('negative throughout is turned, whatever can be so', () => {
    expect(kind(vacuum, (t) => -58e3 * Math.min(1, 3 * t) + 200)).toBe('negative');
    expect(kind(gauge, (t) => -4e6 * t)).toBe('negative');
    expect(kind(force, (t) => -900 * t)).toBe('negative');
    // A shell that is blown out after its vacuum was not negative throughout.
    expect(kind(vacuum, (t) => 58e3 - 64e3 * t)).toBe('as-written');
    // A store that ends below zero was not negative throughout: that is a gauge at fault, and stays one.
    expect(kind(gauge, (t) => 16e6 - 20e6 * t)).toBe('as-written');
  });

  it('what starts at the air and is drawn down, or that no pump leaves, is absolute', () => {
    expect(kind(vacuum, (t) => ambient - 58e3 * Math.min(1, 3 * t))).toBe('absolute');
    expect(kind(vacuum, (t) => 27e3 + (ambient - 27e3) * t)).toBe('absolute');
  });

  it('what makes sense both ways is asked', () => {
    expect(kind(vacuum, (t) => 27e3 + 2e3 * t)).toBe('ambiguous');
    // Weak vacuum under its own name is the very thing that is looked for.
    expect(kind(vacuum, (t) => 27e3 + 2e3 * t, true)).toBe('as-written');
    expect(kind(gauge, (t) => ambient + 4e6 * Math.max(0, t - 0.3))).toBe('ambiguous');
    expect(kind(gauge, (t) => 4e6 * Math.max(0, t - 0.3))).toBe('as-written');
  });

  it('a sound vacuum as it is called is never turned, and the same written the other way round always is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.55, max: 0.9, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        (share, lost) => {
          const held = (t: number) => share * ambient * (1 - lost * t);
          expect(kind(vacuum, held)).toBe('as-written');
          expect(kind(vacuum, (t) => -held(t))).toBe('negative');
        },
      ),
    );
  });
});

it('a channel that was read once in a thousand rows of a long log is asked about as any other', () => {
  const rows = 300_000;
  const seldom = (first: number) => {
    const column = new Float64Array(rows).fill(Number.NaN);
    for (let i = first; i < rows; i += 1000) column[i] = i < rows / 2 ? ambient : 900e3;
    return column;
  };
  for (const first of [0, 1, 3, 7]) expect(inferReference(gauge, seldom(first), ambient, false).kind).toBe('ambiguous');
});
