/** Greatest common divisor of two whole numbers; of one and 0 the one. */
export function commonDivisor(one: number, other: number): number {
  return other === 0 ? one : commonDivisor(other, one % other);
}
