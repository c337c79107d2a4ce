import type { ReadProblem } from '../vocabulary/read-problem';

export type Read<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: readonly ReadProblem[] };

export function readOk<T>(value: T): Read<T> {
  return { ok: true, value };
}

export function readFailed<T>(...problems: readonly ReadProblem[]): Read<T> {
  return { ok: false, problems };
}
