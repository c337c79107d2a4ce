/** How long something lasts or lasted, in words: whole minutes from two of them on, seconds below. */
export function waitText(seconds: number): string {
  if (seconds >= 120) return `${Math.round(seconds / 60)} min`;
  return `${Number(seconds.toFixed(seconds < 10 ? 1 : 0))} s`;
}
