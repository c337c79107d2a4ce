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
