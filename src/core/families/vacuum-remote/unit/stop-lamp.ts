const { min } = Math;

/** Stop-lamp switch of a sound unit: closes and opens at, Pa. */
export const closesAt = 410_000;
export const opensAt = 310_000;

/** State (0/1) of a stop-lamp switch whose thresholds are `shift` (Pa) off, at an input pressure (Pa gauge). */
export function stopLamp(was: number, input: number, shift: number): number {
  const closes = closesAt + shift;
  if (input > closes) return 1;
  return input < min(closes - 1, opensAt + shift) ? 0 : was;
}
