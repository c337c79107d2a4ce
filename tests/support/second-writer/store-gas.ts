/* Nitrogen behind a bladder, by its own small steps: p·V = N·T, work and heat; nothing of the product's models. */

/** What a store holds: precharge Pa absolute at 293.15 K, volume m3, shell and first gas K, time constant s. */
export interface StoreGas {
  readonly precharge: number;
  readonly volume: number;
  readonly shell: number;
  readonly tau: number;
}

/** Pressures (Pa absolute) of a store that is given fluid at `flow(t, p)` (m3/s), every `step` seconds, from `start` (Pa absolute). */
export function gasPressures(
  gas: StoreGas,
  start: number,
  flow: (time: number, pressure: number) => number,
  { seconds, step, ambient }: { readonly seconds: number; readonly step: number; readonly ambient: number },
): Float64Array {
  const count = Math.ceil(seconds / step) + 2;
  const out = new Float64Array(count);
  const perKelvin = (gas.precharge * gas.volume) / 293.15;
  let temperature = gas.shell;
  const empty = (perKelvin * gas.shell) / gas.volume;
  let room = start > empty ? (perKelvin * gas.shell) / start : gas.volume;
  // Lines that fill before the bladder lifts: a tenth of a cubic centimetre to the megapascal.
  let lines = start > empty ? empty : start;
  for (let i = 0; i < count; i++) {
    const pressure = room < gas.volume ? (perKelvin * temperature) / room : lines;
    out[i] = Math.max(ambient, pressure);
    const given = flow(i * step, out[i]) * step;
    if (room >= gas.volume && (lines < empty || given < 0)) {
      lines = Math.min(empty, Math.max(ambient, lines + given / 0.1e-12));
      if (lines < empty) continue;
    }
    const next = Math.min(gas.volume, room - given);
    temperature *= 1 - 0.4 * ((next - room) / room);
    temperature += ((gas.shell - temperature) * step) / gas.tau;
    room = next;
  }
  return out;
}
