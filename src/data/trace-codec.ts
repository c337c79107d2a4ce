import { promisify } from 'node:util';
import { constants, deflateRaw, inflateRaw } from 'node:zlib';
import * as z from 'zod';
import { packFrame, readFrame } from '@/core/traces/frame';
import { makeTrace, type Trace } from '@/core/traces/trace';

// Packed beside the thread that records, not on it.
const pack = promisify<Uint8Array, { level: number }, Buffer>(deflateRaw);
const unpack = promisify<Buffer, Buffer>(inflateRaw);

/** A chunk of a trace as bytes: its frame, deflated. */
export const encodeChunk = (chunk: Trace): Promise<Buffer> => encodeFrame(packFrame(chunk));

/** The same of a frame that was packed already. */
export function encodeFrame(frame: Uint8Array): Promise<Buffer> {
  return pack(frame, { level: constants.Z_BEST_SPEED });
}

/** The chunk that `encodeChunk` made, now or before; rejects on bytes that are no chunk. */
export async function decodeChunk(bytes: Buffer): Promise<Trace> {
  const raw = await unpack(bytes);
  const read = readFrame(raw);
  return read.kind === 'frame' ? read.frame.samples : formerChunk(raw);
}

const formerHead = z.object({ channels: z.array(z.string()), samples: z.number().int().min(0) });

/** A chunk as it was written before frames: a JSON head, a zero byte, then the clock and every column as little-endian doubles. */
function formerChunk(raw: Buffer): Trace {
  const end = raw.indexOf(0);
  const { channels, samples } = formerHead.parse(JSON.parse(raw.toString('utf8', 0, end)));
  const column = (c: number) =>
    Float64Array.from({ length: samples }, (_, i) => raw.readDoubleLE(end + 1 + (c * samples + i) * 8));
  return makeTrace(column(0), Object.fromEntries(channels.map((id, c) => [id, column(c + 1)])));
}
