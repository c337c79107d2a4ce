/** Words that head something, as they stand within a sentence: the first letter small, units and names as they are written. */
export function inSentence(text: string): string {
  const [first = '', second = ''] = text;
  // "MPa" and "N" begin with a capital in a sentence too.
  return second !== '' && second === second.toLowerCase() && second !== second.toUpperCase()
    ? first.toLowerCase() + text.slice(1)
    : text;
}
