// One table for the whole process, also across the bundler's copies of this module.
const shared = globalThis as { hardPedalTurns?: Map<string, Promise<unknown>> };
const turns = (shared.hardPedalTurns ??= new Map());

/** Does a work once those before it under the same name are done, whatever they came to. */
export async function oneAtATime<T>(name: string, work: () => Promise<T>): Promise<T> {
  const before = turns.get(name) ?? Promise.resolve();
  const mine = before.then(work, work);
  turns.set(name, mine);
  try {
    return await mine;
  } finally {
    if (turns.get(name) === mine) turns.delete(name);
  }
}
