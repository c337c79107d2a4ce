/** Changes when an analysis or a decision changes, so that a stored result can be told from a new one. */
export const methodVersion = 16;
