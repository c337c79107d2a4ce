import { day, type Tokens } from './tokens';

/** Colours on paper: those of the day on white. */
export const paperTokens: Tokens = { ...day, ground: '#FFFFFF', panel: '#FFFFFF' };
