/** Bytes looked at to tell a code of two bytes a sign that does not say so. */
const looked = 2_000;

/** Order of the two bytes of each sign where a text is written so; null where it is not. */
function ofTwoBytes(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  // A log is figures and plain words: every second byte of it is nought.
  const first = bytes.subarray(0, Math.min(looked, bytes.length - (bytes.length % 2)));
  if (first.length < 8) return null;
  const noughts = [0, 0];
  for (let i = 0; i < first.length; i++) if (first[i] === 0) noughts[i % 2]++;
  const most = 0.45 * first.length;
  if (noughts[1] > most && noughts[0] === 0) return 'utf-16le';
  return noughts[0] > most && noughts[1] === 0 ? 'utf-16be' : null;
}

/** The text of a file: UTF-16 or UTF-8 where it is, else the Western single-byte code that older loggers write. */
export function decodeText(read: ArrayBuffer | Uint8Array): string {
  const bytes = read instanceof Uint8Array ? read : new Uint8Array(read);
  const two = ofTwoBytes(bytes);
  if (two) return new TextDecoder(two).decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
