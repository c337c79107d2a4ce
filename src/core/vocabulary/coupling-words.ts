/** How a pedal with wires reaches its brakes: three things that shops call by one word. */
export interface CouplingWord {
  readonly title: string;
  readonly means: string;
  /** Family that tests it; null where nothing here does. */
  readonly family: string | null;
  /** What else it is called, lower case, words parted by a space. */
  readonly alsoCalled: readonly string[];
}

export const couplingWords: readonly CouplingWord[] = [
  {
    title: 'Motor booster',
    means: 'the pedal is still coupled to the master cylinder; a motor adds force',
    family: 'motor-boost',
    alsoCalled: ['electric booster', 'electric servo', 'electromechanical booster', 'motor boost'],
  },
  {
    title: 'Decoupled unit',
    means:
      'the pedal works a feel simulator; a second source makes the wheel pressure, and the hydraulics join again when power goes',
    family: 'brake-by-wire',
    alsoCalled: ['brake by wire', 'by wire', 'wet by wire', 'electrohydraulic brake', 'electro hydraulic brake'],
  },
  {
    title: 'Dry by-wire',
    means: 'no hydraulics at all: a motor at each wheel. Nothing here tests it',
    family: null,
    alsoCalled: ['brake by wire', 'by wire', 'dry by wire', 'electromechanical brake'],
  },
];

/** Text as words are compared: lower case, hyphens and runs of spaces one space. */
export function plainWords(text: string): string {
  return text
    .toLowerCase()
    .replace(/[-‐–_]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
}

/** The couplings that a shop's word may mean, by their own title or another name; none for a text of fewer than three signs. */
export function couplingsCalled(text: string): readonly CouplingWord[] {
  const said = plainWords(text);
  if (said.length < 3) return [];
  return couplingWords.filter(({ title, alsoCalled }) =>
    [plainWords(title), ...alsoCalled].some((name) => name.includes(said)),
  );
}
