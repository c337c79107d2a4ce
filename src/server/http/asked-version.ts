import { AsyncLocalStorage } from 'node:async_hooks';

/** Header in which a page says which version of a job, or of another record, it shows. */
export const versionHeader = 'Record-Version';

const asked = new AsyncLocalStorage<number | null>();

/** Does a work as it was asked for by a page that shows this version; null where the request does not say. */
export const askedAtVersion = <T>(version: number | null, work: () => Promise<T>): Promise<T> =>
  asked.run(version, work);

/** The version that whoever asks has seen; null where that is not known. */
export const versionSeen = (): number | null => asked.getStore() ?? null;

/** The version that a request names; null where it names none. */
export function versionOf(headers: Headers): number | null {
  const text = headers.get(versionHeader);
  return text !== null && /^\d{1,15}$/.test(text) ? Number(text) : null;
}
