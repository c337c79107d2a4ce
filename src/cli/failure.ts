import type { Read } from '@/core/formats/read-result';
import type { ReadProblem } from '@/core/vocabulary/read-problem';

/** Unusable input: ends the command with exit code 2 and the problems on stderr. */
export class UnusableInput extends Error {
  constructor(readonly problems: readonly ReadProblem[]) {
    super('unusable input');
  }
}

/** The value, or the end of the command. */
export function orFail<T>(read: Read<T>): T {
  if (!read.ok) throw new UnusableInput(read.problems);
  return read.value;
}

/** Ends the command with one problem. */
export function fail(problem: ReadProblem): never {
  throw new UnusableInput([problem]);
}
