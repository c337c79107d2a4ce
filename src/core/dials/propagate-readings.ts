import { readingComponents, systematic, type UncertaintyComponent } from '../instruments/uncertainty';
import type { StepContext } from '../procedure/step-context';

/** One reading of one dial, SI. */
export interface DialReadingTaken {
  readonly channel: string;
  readonly value: number;
}

/** Errors that move every reading of one instrument together; the others move each reading by itself. */
const together = ['gauge-zero', 'gauge-gain'] as const;
const alone = ['gauge-linearity', 'resolution'] as const;

/**
 * What the instruments' errors make of figures that are worked out of several dial readings: each error is moved by its standard
 * uncertainty either way and the figure worked out again (JCGM 100:2008, 5.1.3 note 2). SI, by figure; a figure that cannot be
 * worked out with an error moved has none.
 */
export function propagateReadings<Figures extends Readonly<Record<string, number>>>(
  readings: readonly DialReadingTaken[],
  figuresOf: (values: readonly number[]) => Figures | null,
  context: StepContext<unknown>,
): Readonly<Record<keyof Figures, readonly UncertaintyComponent[]>> | null {
  const values = readings.map(({ value }) => value);
  const nominal = figuresOf(values);
  if (!nominal) return null;
  const ids = Object.keys(nominal) as (keyof Figures)[];
  const parts = readings.map(({ channel, value }) => {
    const instrument = context.instruments.get(channel);
    return instrument ? readingComponents(instrument, value, context.date) : [];
  });
  const partOf = (at: number, source: UncertaintyComponent['source']) =>
    parts[at].find((part) => part.source === source)?.standard ?? 0;
  /** Half of what the figures change by when the readings are moved up and down. */
  const moved = (by: (at: number) => number): Record<keyof Figures, number> => {
    const up = figuresOf(values.map((value, at) => value + by(at)));
    const down = figuresOf(values.map((value, at) => value - by(at)));
    const change = (id: keyof Figures) =>
      Math.max(up ? Math.abs(up[id] - nominal[id]) : 0, down ? Math.abs(down[id] - nominal[id]) : 0);
    return Object.fromEntries(ids.map((id) => [id, change(id)])) as Record<keyof Figures, number>;
  };
  const changes: { readonly source: UncertaintyComponent['source']; readonly by: Record<keyof Figures, number> }[] = [];
  for (const channel of new Set(readings.map((reading) => reading.channel)))
    for (const source of together)
      changes.push({
        source,
        by: moved((at) =>
          readings[at].channel === channel
            ? partOf(at, source) * (source === 'gauge-gain' ? Math.sign(values[at]) : 1)
            : 0,
        ),
      });
  for (const source of alone)
    for (let each = 0; each < readings.length; each++)
      if (partOf(each, source) > 0)
        changes.push({ source, by: moved((at) => (at === each ? partOf(each, source) : 0)) });
  const componentsOf = (id: keyof Figures) =>
    [...together, ...alone].flatMap((source) => {
      const standard = Math.hypot(...changes.filter((change) => change.source === source).map(({ by }) => by[id]));
      return standard > 0 ? [systematic(source, standard)] : [];
    });
  return Object.fromEntries(ids.map((id) => [id, componentsOf(id)])) as unknown as Record<
    keyof Figures,
    readonly UncertaintyComponent[]
  >;
}
