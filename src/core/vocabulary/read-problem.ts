/** Why an input could not be used. `place` is a file, `line` and `column` are where in it. */
export type ReadProblem =
  | { readonly code: 'not-text'; readonly file: string }
  | { readonly code: 'empty-file'; readonly file: string }
  | { readonly code: 'too-many-columns'; readonly file: string; readonly columns: number }
  | { readonly code: 'no-time-column'; readonly file: string; readonly line: number }
  | { readonly code: 'bad-header'; readonly file: string; readonly line: number; readonly header: string }
  | {
      readonly code: 'unknown-unit';
      readonly file: string;
      readonly line: number;
      readonly header: string;
      readonly unit: string;
    }
  | {
      readonly code: 'wrong-unit';
      readonly file: string;
      readonly line: number;
      readonly header: string;
      readonly needs: string;
    }
  | { readonly code: 'duplicate-channel'; readonly file: string; readonly line: number; readonly channel: string }
  | {
      readonly code: 'missing-channel';
      readonly file: string;
      readonly line: number;
      readonly channel: string;
      readonly step: string;
    }
  /** None of the sets of channels of which one is enough is whole. */
  | {
      readonly code: 'nothing-of-use';
      readonly file: string;
      readonly line: number;
      readonly anyOf: readonly (readonly string[])[];
      readonly step: string;
    }
  | { readonly code: 'empty-channel'; readonly file: string; readonly channel: string; readonly step: string }
  | {
      readonly code: 'not-a-number';
      readonly file: string;
      readonly line: number;
      readonly column: string;
      readonly text: string;
    }
  | {
      readonly code: 'ragged-row';
      readonly file: string;
      readonly line: number;
      readonly cells: number;
      readonly needs: number;
    }
  | {
      readonly code: 'time-backwards';
      readonly file: string;
      readonly line: number;
      readonly time: number;
      readonly before: number;
    }
  | {
      readonly code: 'too-few-rows';
      readonly file: string;
      readonly rows: number;
      readonly needs: number;
      readonly step: string;
    }
  /** A column makes sense as it is named and as an absolute pressure: somebody has to say which. SI. */
  | {
      readonly code: 'ambiguous-reference';
      readonly file: string;
      readonly line: number;
      readonly channel: string;
      readonly low: number;
      readonly high: number;
    }
  | { readonly code: 'not-json'; readonly file: string; readonly detail: string }
  | { readonly code: 'bad-field'; readonly file: string; readonly field: string; readonly detail: string }
  | {
      readonly code: 'unknown-family';
      readonly file: string;
      readonly family: string;
      readonly known: readonly string[];
    }
  | { readonly code: 'unknown-step'; readonly step: string; readonly known: readonly string[] }
  | { readonly code: 'unknown-fault'; readonly fault: string; readonly known: readonly string[] }
  | { readonly code: 'unknown-plan'; readonly plan: string; readonly known: readonly string[] }
  | { readonly code: 'look-step'; readonly step: string }
  /** Repeats of one step, some with the gauges swapped: their mean would say nothing. */
  | { readonly code: 'mixed-gauges'; readonly file: string; readonly step: string }
  | { readonly code: 'unreadable'; readonly file: string; readonly detail: string }
  | { readonly code: 'bad-argument'; readonly argument: string; readonly detail: string };

/** Whether a problem is of one row, which can be left out, and not of the file or its header. */
export function isRowProblem(problem: ReadProblem): boolean {
  return problem.code === 'not-a-number' || problem.code === 'ragged-row' || problem.code === 'time-backwards';
}
