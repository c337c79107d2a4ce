/** Studies are run at full size by `npm run studies -- full`, and smaller with every change. */
export const full = process.env.STUDY_SIZE === 'full';

/** How many of something a study looks at. */
export const sized = (smaller: number, atFullSize: number): number => (full ? atFullSize : smaller);
