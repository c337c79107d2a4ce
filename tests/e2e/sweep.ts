/**
 * Marks a journey that is the same as another one for one more family, size or cause, or that is long for its size alone: `npm test` takes
 * the first of its kind, `npm run studies` all of them.
 */
export const sweep = { tag: '@sweep' };
export const sweepBut = (first: boolean) => (first ? {} : sweep);
