/** Why a request is turned away before anything looks at it. */
export interface Refusal {
  readonly status: 400 | 403 | 413 | 415;
  readonly message: string;
}

const loopback = /^(?:localhost|127(?:\.\d{1,3}){3}|\[::1\])(?::\d{1,5})?$/;
const changing = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);
/** Largest body of a request, and of one part of a log, bytes. */
export const largestBody = 2 * 1024 * 1024;
export const largestPart = 32 * 1024 * 1024;
const partsOfALog = /^\/api\/runs\/[^/]+\/parts$/;

/** Hosts that this server answers to besides the machine's own: `HARD_PEDAL_HOSTS`, parted by commas. */
function ownHosts(): readonly string[] {
  return (process.env.HARD_PEDAL_HOSTS ?? '').split(',').map((host) => host.trim().toLowerCase());
}

/**
 * Whether a request may come in. The host must be the machine itself or one that was named, so that no other site's name can be made
 * to point here; what changes something, and what streams, must come from a page of this server; a body is JSON and of a size.
 */
export function refusalAtTheDoor(method: string, url: string, headers: Headers): Refusal | null {
  const host = (headers.get('host') ?? '').toLowerCase();
  if (!loopback.test(host) && !(host !== '' && ownHosts().includes(host)))
    return { status: 403, message: 'This server does not answer to that name. Name it in HARD_PEDAL_HOSTS.' };
  const path = pathOf(url);
  if (path === null) return { status: 400, message: 'This address cannot be read.' };
  if (!path.startsWith('/api/')) return null;
  if (isForeign(headers, host)) return { status: 403, message: 'Only this workshop’s own pages may ask for this.' };
  if (!changing.has(method)) return null;
  const part = partsOfALog.test(path) && method === 'PUT';
  if (Number(headers.get('content-length') ?? 0) > (part ? largestPart : largestBody))
    return { status: 413, message: 'This is more than the server takes at once.' };
  if (!part && !isJson(headers)) return { status: 415, message: 'The server takes JSON here, and said to be.' };
  return null;
}

/** Path of an address; null where its escapes make no text. */
function pathOf(url: string): string | null {
  try {
    const { pathname } = new URL(url);
    decodeURIComponent(pathname);
    return pathname;
  } catch {
    return null;
  }
}

/** Whether a browser says that another site's page asks. */
function isForeign(headers: Headers, host: string): boolean {
  const site = headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return true;
  const origin = headers.get('origin');
  if (origin === null) return false;
  try {
    return new URL(origin).host.toLowerCase() !== host;
  } catch {
    return true;
  }
}

export function isJson(headers: Headers): boolean {
  return /^application\/json\s*(?:;|$)/i.test(headers.get('content-type') ?? '');
}
