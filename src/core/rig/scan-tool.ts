import type { AnyKind } from '../contract/kind';
import { findChannel } from '../quantities/channels';
import { fromSi, unitOf } from '../quantities/measurement-unit';
import type { ActiveFault } from '../physics/plant';
import { ownSamples, sampleAt } from '../traces/own-samples';
import type { Trace } from '../traces/trace';

/*
 * A stand-in scan tool. What it tells comes seldom, one value after the other, in units and with signs of its own, and under its own names:
 * as awkward as real ones are, so that reading them is tried before a real one is.
 */

/** s between two values of one channel, however many there are; never less than this. */
const perChannel = 0.02;
const leastEvery = 0.1;

/** How the tool tells of a dimension: its unit, decimals, and whether what is drawn is negative. */
const tells: Readonly<Record<string, { readonly unit: string; readonly decimals: number; readonly negative?: true }>> =
  {
    pressure: { unit: 'bar', decimals: 1 },
    force: { unit: 'N', decimals: 0 },
    length: { unit: 'mm', decimals: 1 },
    voltage: { unit: 'mV', decimals: 0 },
    current: { unit: 'A', decimals: 1, negative: true },
    ratio: { unit: '', decimals: 0 },
    rotation: { unit: '1/min', decimals: 0 },
    // A motor that brakes is counted the other way, and a road in miles.
    torque: { unit: 'Nm', decimals: 0, negative: true },
    speed: { unit: 'mph', decimals: 1 },
    percent: { unit: '%', decimals: 1 },
  };

/** The tool's name of a channel: its title as one word, and the unit behind it. */
function headerOf(channel: string): string {
  const described = findChannel(channel);
  const { unit } = tells[described?.dimension ?? 'ratio'] ?? { unit: '' };
  const name = (described?.title ?? channel).replace(/[^A-Za-z0-9]+/g, '_');
  return unit === '' ? name : `${name} (${unit})`;
}

/** Hours, minutes and seconds of a clock that stood at eleven when the log began. */
function clockOf(seconds: number): string {
  const all = 11 * 3600 + seconds;
  const two = (value: number) => String(Math.floor(value)).padStart(2, '0');
  return `${two(all / 3600)}:${two((all / 60) % 60)}:${(all % 60).toFixed(3).padStart(6, '0').replace('.', ',')}`;
}

/**
 * A trace as the tool would have written it: semicolons, decimal commas, a clock, its own names and units, and in each row the one channel
 * that it asked for then. Channels that no controller knows (a bench's own gauges) are left out by `knows`.
 */
export function scanToolLog(trace: Trace, knows: (channel: string) => boolean): string {
  const channels = Object.keys(trace.columns).filter(knows);
  const samples = channels.map((channel) => ownSamples(trace, trace.columns[channel]));
  const every = Math.max(leastEvery, perChannel * channels.length);
  const end = trace.time[trace.time.length - 1] ?? 0;
  const lines = [['Clock', ...channels.map(headerOf)].join(';')];
  for (let turn = 0; turn * every <= end; turn++)
    channels.forEach((channel, at) => {
      const time = turn * every + (at * every) / channels.length;
      const own = samples[at];
      const index = sampleAt(own, time);
      if (index >= own.time.length) return;
      const { unit, decimals, negative } = tells[findChannel(channel)?.dimension ?? 'ratio'] ?? tells.ratio;
      const value = unit === '' ? own.value[index] : fromSi(own.value[index], unitOf(unit));
      const said = (negative ? -value : value).toFixed(decimals).replace('.', ',');
      lines.push([clockOf(time), ...channels.map((_, other) => (other === at ? said : ''))].join(';'));
    });
  return `${lines.join('\n')}\n`;
}

/** A fault that a controller keeps: a code that names a circuit, never what is wrong with it. */
export interface StoredFault {
  readonly code: string;
  readonly circuit: string;
  readonly state: 'stored' | 'present';
}

/** What the controller of a unit with these faults has stored; faults that it cannot see are not among them. */
export function storedFaults(kind: AnyKind, faults: readonly ActiveFault[]): readonly StoredFault[] {
  return faults.flatMap(({ id }): StoredFault[] => {
    const at = kind.model.faults.findIndex((each) => each.id === id);
    const fault = kind.model.faults[at];
    const state = fault?.appearance.codes;
    if (state !== 'stored' && state !== 'present') return [];
    const place = kind.parts.findIndex((part) => part.faults.includes(id));
    const circuit = kind.parts[place]?.title ?? kind.title;
    const two = (value: number) => String(value).padStart(2, '0');
    return [{ code: `${two(40 + place)}-${two(at + 1)}`, circuit, state }];
  });
}

/** Stored faults as a line of text, as somebody would write them down. */
export function storedFaultsText(stored: readonly StoredFault[]): string {
  return stored.map(({ code, circuit, state }) => `${code} ${circuit.toLowerCase()}, ${state}`).join('; ');
}
