import { expandedUncertainty, type Estimate } from '@/core/instruments/uncertainty';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import type { StepVerdict } from '@/core/vocabulary/verdict';

/** What the one who wrote a log knows of it. */
export interface Expected {
  /** Verdicts that would be wrong. */
  readonly wrong: readonly StepVerdict[];
  /** The unit is sound and the log as good as one is made: it should pass. */
  readonly shouldPass: boolean;
}

export interface Tally {
  logs: number;
  right: number;
  undecided: number;
  /** Wrong, but it was called early and says what it takes for granted. */
  said: number;
  silentlyWrong: number;
  soundWellMeasured: number;
  soundPassed: number;
  readonly reasons: Map<string, number>;
  readonly wrongs: string[];
}

export function emptyTally(): Tally {
  return {
    logs: 0,
    right: 0,
    undecided: 0,
    said: 0,
    silentlyWrong: 0,
    soundWellMeasured: 0,
    soundPassed: 0,
    reasons: new Map(),
    wrongs: [],
  };
}

/** Counts one judged log. */
export function count(tally: Tally, result: StepEvaluation, expected: Expected, told: string): void {
  tally.logs++;
  const notes = result.analyses.flatMap((analysis) => analysis.notes.map((note) => note.code));
  if (expected.shouldPass) {
    tally.soundWellMeasured++;
    if (result.verdict === 'pass') tally.soundPassed++;
  }
  if (expected.wrong.includes(result.verdict)) {
    if (notes.includes('called-early')) tally.said++;
    else {
      tally.silentlyWrong++;
      tally.wrongs.push(`${told}: ${result.verdict}`);
    }
    return;
  }
  if (result.verdict !== 'undecided') {
    tally.right++;
    return;
  }
  tally.undecided++;
  const [reason] = [
    ...result.doubts,
    ...result.characteristics.flatMap((each) => (each.kind === 'measured' ? [] : [each.problem])),
  ];
  const code = reason?.code ?? 'within U of the limit';
  tally.reasons.set(code, (tally.reasons.get(code) ?? 0) + 1);
  if (expected.shouldPass) tally.wrongs.push(`(sound) ${told}: ${code}`);
}

/** One line of the printed table. */
export function tallyLine(name: string, tally: Tally): string {
  const reasons = [...tally.reasons].map(([code, times]) => `${code} ${times}`).join(', ');
  return `${name.padEnd(44)} ${tally.logs} logs: right ${tally.right}   undecided ${tally.undecided} (${reasons})   assumption said ${tally.said}   silently wrong ${tally.silentlyWrong}   sound well measured ${tally.soundPassed}/${tally.soundWellMeasured} passed`;
}

/** How often U covered what was true, by figure. */
export function coverage() {
  const figures = new Map<string, { inside: number; all: number; ratios: number[] }>();
  return {
    figures,
    see(name: string, estimate: Estimate, truth: number): void {
      const figure = figures.get(name) ?? { inside: 0, all: 0, ratios: [] };
      const off = Math.abs(estimate.value - truth) / expandedUncertainty(estimate);
      figure.all++;
      if (off <= 1) figure.inside++;
      figure.ratios.push(off);
      figures.set(name, figure);
    },
  };
}

export type Coverage = ReturnType<typeof coverage>;

/**
 * Prints what became of a study's logs, and asks of it: nine of ten sound, well-measured units pass, and U covers the
 * truth 90 to 98 times in a hundred (a few logs cannot tell too wide a U).
 */
export function expectHonestStudy(
  tallies: ReadonlyMap<string, Tally>,
  covered: Coverage,
  perCase: number,
  how: { readonly ofBounds?: boolean } = {},
): void {
  const all = [...tallies.values()];
  const sum = (of: (tally: Tally) => number) => all.reduce((total, each) => total + of(each), 0);
  const [passed, sound] = [sum((each) => each.soundPassed), sum((each) => each.soundWellMeasured)];
  const figures = [...covered.figures.values()];
  const inside = figures.reduce((total, each) => total + each.inside, 0);
  const seen = figures.reduce((total, each) => total + each.all, 0);
  if (perCase > 10 || process.env.FOREIGN_TABLE) {
    process.stdout.write(`\n${[...tallies].map(([name, tally]) => tallyLine(name, tally)).join('\n')}\n`);
    for (const [name, figure] of covered.figures)
      process.stdout.write(`${name.padEnd(44)} U covers ${figure.inside} of ${figure.all}\n`);
  }
  process.stdout.write(
    `${sum((each) => each.logs)} logs, silently wrong ${sum((each) => each.silentlyWrong)}; sound, well measured: ${passed} of ${sound} passed; U covers ${inside} of ${seen}\n`,
  );
  if (process.env.FOREIGN_WRONGS) process.stdout.write(`${all.flatMap((each) => each.wrongs).join('\n')}\n`);
  if (sound > 0) expect(passed / sound).toBeGreaterThanOrEqual(0.9);
  if (seen > 0) expect(inside / seen).toBeGreaterThanOrEqual(0.9);
  // An uncertainty made of bounds (a shell within 5 K, a lag within so much) is never exceeded.
  if (seen > 0 && perCase > 10 && !how.ofBounds) expect(inside / seen).toBeLessThanOrEqual(0.98);
}
