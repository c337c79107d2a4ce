const changed = 'hard-pedal-stored';

/** Texts that this browser would not keep, because its store is full or barred: they last as long as the page. */
const unkept = new Map<string, string>();

/** The text kept under a key; null where there is none. */
export function keptText(key: string): string | null {
  const held = unkept.get(key);
  if (held !== undefined) return held;
  try {
    return window.localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** Keeps a text under a key: over reloads where the browser lets us, else while the page is open. */
export function keepText(key: string, text: string): void {
  try {
    window.localStorage.setItem(key, text);
    unkept.delete(key);
  } catch {
    unkept.set(key, text);
  }
  window.dispatchEvent(new Event(changed));
}

/** Forgets a text. What a screen shows of it stays until that screen next looks. */
export function dropText(key: string): void {
  unkept.delete(key);
  try {
    window.localStorage.removeItem(key);
  } catch {
    // Nothing can have been kept there.
  }
}

/** Whether something stands on the page that a reload would lose. */
export function somethingUnkept(): boolean {
  return unkept.size > 0;
}

/** Calls `listener` after every change, also one made in another window, until the returned function is called. */
export function onStoreChange(listener: () => void): () => void {
  window.addEventListener('storage', listener);
  window.addEventListener(changed, listener);
  return () => {
    window.removeEventListener('storage', listener);
    window.removeEventListener(changed, listener);
  };
}

/** The texts by name in a kept JSON object; none where it is damaged. */
export function textsByName(kept: string | null): Readonly<Record<string, string>> {
  try {
    const texts: unknown = JSON.parse(kept ?? '{}');
    if (typeof texts !== 'object' || texts === null) return {};
    return Object.fromEntries(
      Object.entries(texts).filter((entry): entry is [string, string] => typeof entry[1] === 'string'),
    );
  } catch {
    return {};
  }
}
