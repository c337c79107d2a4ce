import { endianness } from 'node:os';
import { promisify } from 'node:util';
import { constants, deflateRaw, inflateRaw } from 'node:zlib';
import { z } from 'zod';
import { makeTrace, type Trace } from '@/core/traces/trace';

const headSchema = z.object({ channels: z.array(z.string()), samples: z.number().int().min(0) });

// Packed beside the thread that records, not on it.
const pack = promisify<Buffer, { level: number }, Buffer>(deflateRaw);
const unpack = promisify<Buffer, Buffer>(inflateRaw);

const hostIsLittleEndian = endianness() === 'LE';

function littleEndian(column: Float64Array): Buffer {
  const bytes = Buffer.from(column.buffer, column.byteOffset, column.byteLength);
  return hostIsLittleEndian ? bytes : Buffer.from(bytes).swap64();
}

/**
 * A chunk of a trace as bytes: a JSON head with the channels and the number of samples, a zero byte, then the
 * clock and every column as little-endian doubles; all of it deflated.
 */
export function encodeChunk(chunk: Trace): Promise<Buffer> {
  const channels = Object.keys(chunk.columns);
  const head = Buffer.from(JSON.stringify({ channels, samples: chunk.time.length }), 'utf8');
  const columns = [chunk.time, ...channels.map((id) => chunk.columns[id])];
  const bodies = columns.map((column) => littleEndian(column));
  return pack(Buffer.concat([head, Buffer.from([0]), ...bodies]), { level: constants.Z_BEST_SPEED });
}

/** The chunk that `encodeChunk` made; rejects on bytes that are no chunk. */
export async function decodeChunk(bytes: Buffer): Promise<Trace> {
  const raw = await unpack(bytes);
  const end = raw.indexOf(0);
  const { channels, samples } = headSchema.parse(JSON.parse(raw.toString('utf8', 0, end)));
  const column = (c: number) => {
    const from = end + 1 + c * samples * 8;
    // A copy of its own, because doubles must begin at a multiple of eight bytes.
    const bytes = Uint8Array.from(raw.subarray(from, from + samples * 8));
    if (!hostIsLittleEndian) Buffer.from(bytes.buffer).swap64();
    return new Float64Array(bytes.buffer);
  };
  return makeTrace(column(0), Object.fromEntries(channels.map((id, c) => [id, column(c + 1)])));
}
