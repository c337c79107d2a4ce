import { day, dim, type Tokens } from './tokens';

/** Canvas cannot read CSS variables: the tokens of the mode in force. */
export function chartTokens(mode: string | undefined): Tokens {
  return mode === 'dark' ? dim : day;
}
