import type { Knex } from 'knex';
import { changeVersioned, versionOfKey } from '@/data/versioned';
import { versionSeen } from '../http/asked-version';
import { RequestRefused } from '../http/refused';
import { oneAtATime } from './one-at-a-time';

export { versionOfKey };

/**
 * Changes one record of the workshop's, all of it or nothing, one after another. `check` refuses what cannot be, with the record as it is
 * now; somebody who decided on another version than there is, is told so (409), and nothing is written.
 */
export async function changeShop(
  record: { readonly key: string; readonly title: string },
  check: () => Promise<{ readonly already: boolean }>,
  write: (trx: Knex) => Promise<void>,
): Promise<{ version: number }> {
  const { key, title } = record;
  // Whoever does not say what he has seen has seen what there was when he asked.
  const seen = versionSeen() ?? (await versionOfKey(key));
  return oneAtATime(`shop ${key}`, async () => {
    const version = await versionOfKey(key);
    const { already } = await check();
    if (already) return { version };
    if (seen < version)
      throw new RequestRefused(
        409,
        `${title} changed since this page was loaded. What you entered is still here: look again, then save.`,
        {},
        { version },
      );
    return { version: await changeVersioned(key, write) };
  });
}
