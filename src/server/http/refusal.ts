// One for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalRefusal?: string };

/** From now on every request is answered with why the data cannot be used. */
export function refuseEverything(why: string): void {
  shared.hardPedalRefusal = why;
}

/** Why nothing can be answered; null while everything can. */
export const refusalOfAll = (): string | null => shared.hardPedalRefusal ?? null;

const escaped = (text: string) => text.replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`);

/** The one page that is left to show. */
export const refusalPage = (why: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Not started · Hard Pedal</title>
<meta name="viewport" content="width=device-width"><style>body{font:1.25rem/1.5 system-ui,sans-serif;max-width:44rem;margin:15vh auto;padding:0 1.5rem}</style>
</head><body><main><h1>Hard Pedal has not started</h1><p role="alert">${escaped(why)}</p></main></body></html>`;
