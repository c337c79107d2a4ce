import { makeTrace, type Trace } from './trace';

/*
 * Samples as bytes: the one form in which a trace lies on the disk, goes over the wire and comes from the log worker.
 *
 *   "HPF1"          4 bytes
 *   length of head  4 bytes, little endian
 *   head            JSON in UTF-8, filled up with spaces so that what follows begins at a multiple of eight
 *   clock, columns  little-endian doubles, one column after the other; NaN is a missing sample
 */

const magic = 0x31465048;
const prefix = 8;
/** No head is longer than this: channels and a few words. */
const longestHead = 1 << 20;
const { isInteger } = Number;
const hostIsLittleEndian = new Uint8Array(Uint16Array.of(1).buffer)[0] === 1;

export interface Frame {
  /** What its maker says with it. */
  readonly said: unknown;
  readonly samples: Trace;
}

/** What bytes hold: a frame and its length in bytes, the beginning of one of at least so many, or no frame at all. */
export type FrameRead =
  | { readonly kind: 'frame'; readonly frame: Frame; readonly length: number }
  | { readonly kind: 'short'; readonly atLeast: number }
  | { readonly kind: 'damaged'; readonly why: 'not-a-frame' | 'head' };

/** Samples and what is `said` with them, as JSON can say it, as bytes. */
export function packFrame(samples: Trace, said: unknown = null): Uint8Array<ArrayBuffer> {
  const channels = Object.keys(samples.columns);
  const head = new TextEncoder().encode(JSON.stringify({ channels, samples: samples.time.length, said }));
  const headLength = Math.ceil(head.length / 8) * 8;
  const columns = [samples.time, ...channels.map((id) => samples.columns[id])];
  const bytes = new Uint8Array(prefix + headLength + columns.length * samples.time.length * 8);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, magic, true);
  view.setUint32(4, headLength, true);
  bytes.fill(0x20, prefix, prefix + headLength).set(head, prefix);
  const body = new Float64Array(bytes.buffer, prefix + headLength);
  columns.forEach((column, at) => body.set(column, at * samples.time.length));
  if (!hostIsLittleEndian) body.forEach((value, at) => view.setFloat64(prefix + headLength + at * 8, value, true));
  return bytes;
}

function headOf(bytes: Uint8Array): { channels: readonly string[]; samples: number; said: unknown } | null {
  try {
    const head = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) as Record<string, unknown> | null;
    const { channels, samples, said } = head ?? {};
    if (!Array.isArray(channels) || !channels.every((id) => typeof id === 'string')) return null;
    if (!isInteger(samples) || (samples as number) < 0) return null;
    return { channels, samples: samples as number, said };
  } catch {
    return null;
  }
}

/** The frame at the beginning of `bytes`; its columns are copies. */
export function readFrame(bytes: Uint8Array): FrameRead {
  if (bytes.length < prefix) return { kind: 'short', atLeast: prefix };
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const headLength = view.getUint32(4, true);
  if (view.getUint32(0, true) !== magic || headLength > longestHead) return { kind: 'damaged', why: 'not-a-frame' };
  if (bytes.length < prefix + headLength) return { kind: 'short', atLeast: prefix + headLength };
  const head = headOf(bytes.subarray(prefix, prefix + headLength));
  if (!head) return { kind: 'damaged', why: 'head' };
  const { channels, samples, said } = head;
  const length = prefix + headLength + (channels.length + 1) * samples * 8;
  if (bytes.length < length) return { kind: 'short', atLeast: length };
  const column = (at: number) => {
    const from = prefix + headLength + at * samples * 8;
    if (!hostIsLittleEndian)
      return Float64Array.from({ length: samples }, (_, i) => view.getFloat64(from + i * 8, true));
    // A copy in a buffer of its own; `slice` of a Node buffer would share its memory.
    return new Float64Array(new Uint8Array(bytes.subarray(from, from + samples * 8)).buffer);
  };
  const columns = Object.fromEntries(channels.map((id, at) => [id, column(at + 1)]));
  return { kind: 'frame', frame: { said, samples: makeTrace(column(0), columns) }, length };
}

/** Puts frames together out of pieces of any length, in the order they come. */
export class FrameReader {
  private pieces: Uint8Array[] = [];
  private held = 0;
  /** No frame is complete before so many bytes are there: until then nothing is joined or looked at again. */
  private wanted = prefix;

  /** The frames that `piece` completes; null once the bytes are no frames any more. */
  push(piece: Uint8Array): readonly Frame[] | null {
    this.pieces.push(piece);
    this.held += piece.length;
    if (this.held < this.wanted) return [];
    const bytes = this.joined();
    const frames: Frame[] = [];
    let from = 0;
    for (;;) {
      const read = readFrame(bytes.subarray(from));
      if (read.kind === 'damaged') return null;
      if (read.kind === 'short') {
        this.pieces = [bytes.subarray(from)];
        this.held = bytes.length - from;
        this.wanted = read.atLeast;
        return frames;
      }
      frames.push(read.frame);
      from += read.length;
    }
  }

  private joined(): Uint8Array {
    const bytes = new Uint8Array(this.held);
    let at = 0;
    for (const piece of this.pieces) {
      bytes.set(piece, at);
      at += piece.length;
    }
    return bytes;
  }
}
