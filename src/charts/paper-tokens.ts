import { day, type Tokens } from '@/ui/theme/tokens';

/** Colours on paper: those of the day on white. */
export const paperTokens: Tokens = { ...day, ground: '#FFFFFF', panel: '#FFFFFF' };
