import { changedElsewhere, sawVersion, shownVersion } from './shown-version';

/** A request that was refused, with the fields that are wrong. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly fields: Readonly<Record<string, string>>,
  ) {
    super(message);
  }
}

/** Sends JSON and returns the answer's JSON; throws `Refused` with a message for the person at the screen. */
export async function send<T>(path: string, body: unknown, method = 'POST'): Promise<T> {
  let response: Response;
  const seen = shownVersion();
  try {
    response = await fetch(path, {
      method,
      headers: {
        'Content-Type': 'application/json',
        ...(seen === null ? {} : { 'Record-Version': String(seen) }),
      },
      body: JSON.stringify(body),
    });
  } catch {
    throw new Refused('The server does not answer. What you typed is kept here; try again in a moment.', {});
  }
  const data = (await response.json().catch(() => ({}))) as {
    message?: string;
    fields?: Record<string, string>;
    version?: number;
  };
  if (typeof data.version === 'number') {
    sawVersion(data.version);
    if (!response.ok) window.dispatchEvent(new Event(changedElsewhere));
  }
  if (!response.ok) throw new Refused(data.message ?? `The server answered ${response.status}.`, data.fields ?? {});
  return data as T;
}

/** Asks for JSON; throws `Refused` with a message for the person at the screen. */
export async function ask<T>(path: string): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path);
  } catch {
    throw new Refused('The server does not answer. Try again in a moment.', {});
  }
  const data = (await response.json().catch(() => ({}))) as { message?: string };
  if (!response.ok) throw new Refused(data.message ?? `The server answered ${response.status}.`, {});
  return data as T;
}
