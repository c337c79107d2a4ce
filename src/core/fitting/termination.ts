/** How a fit ended; callers must branch on it. */
export type Termination = 'converged' | 'max-iterations' | 'singular' | 'non-finite' | 'too-few-points';
