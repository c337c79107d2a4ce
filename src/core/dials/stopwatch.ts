/** A watch is read to half a second at each end of a time: standard uncertainty of the time, s. */
export const watchStandard = (Math.SQRT2 * 0.5) / Math.sqrt(3);

/** A running watch is read to half a second beside a needle, and was started so well: standard uncertainty of each, s. */
export const momentStandard = 0.5 / Math.sqrt(3);
