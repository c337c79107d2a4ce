/** Changes when a ranking comes out otherwise from the same evidence, so that a kept one can be told from a new one. */
export const rankingVersion = 5;
