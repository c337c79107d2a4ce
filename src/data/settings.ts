import { z } from 'zod';
import { siteSchema, type Site } from '@/core/formats/site-file';
import { prevalences, type Prevalences } from '@/core/contract/prevalence';
import { database } from './database';

/** What a workshop sets once: where it is, its air today, how it decides, its measurement units. */
export const shopSettingsSchema = z.object({
  shopName: z.string().trim().min(1, 'Give the workshop a name').max(80, 'A shorter name, please'),
  site: siteSchema.omit({ instruments: true }),
  policy: z.enum(['guarded', 'simple']),
});

export type ShopSettings = z.infer<typeof shopSettingsSchema>;

const fallback: ShopSettings = { shopName: 'Workshop', site: { altitudeM: 0, airTemperatureC: 20 }, policy: 'guarded' };

export async function readShopSettings(): Promise<ShopSettings> {
  const row = (await (await database())('settings').where({ key: 'shop' }).first()) as { value: string } | undefined;
  return row ? shopSettingsSchema.parse(JSON.parse(row.value)) : fallback;
}

export async function writeShopSettings(settings: ShopSettings): Promise<void> {
  const db = await database();
  await db('settings')
    .insert({ key: 'shop', value: JSON.stringify(settings) })
    .onConflict('key')
    .merge();
}

const prevalencesSchema = z.record(z.string(), z.record(z.string(), z.enum(prevalences)));

/** How common each fault is in this workshop, by family; what is left out is as the family says. */
export async function readPrevalences(): Promise<z.infer<typeof prevalencesSchema>> {
  const row = (await (await database())('settings').where({ key: 'prevalences' }).first()) as
    { value: string } | undefined;
  if (!row) return {};
  try {
    return prevalencesSchema.parse(JSON.parse(row.value));
  } catch (error) {
    // A ranking begins as the families say rather than not at all; the page about it shows that.
    console.error('how common faults are in this workshop cannot be read', error);
    return {};
  }
}

/** Keeps how common the faults of one family are, in place of what was said of it before. */
export async function writePrevalences(family: string, said: Prevalences): Promise<void> {
  const value = JSON.stringify(prevalencesSchema.parse({ ...(await readPrevalences()), [family]: said }));
  await (await database())('settings').insert({ key: 'prevalences', value }).onConflict('key').merge();
}

const personSchema = z.object({ id: z.string(), name: z.string(), role: z.string() });
export type Person = z.infer<typeof personSchema>;

export async function listPeople(): Promise<Person[]> {
  const rows: unknown[] = await (await database())('people').orderBy('name');
  return rows.map((row) => personSchema.parse(row));
}

const instrumentRowSchema = z.object({ id: z.string(), set_name: z.string(), instrument: z.string() });
const siteInstrumentSchema = siteSchema.shape.instruments.unwrap().element;

/** The bench's instruments as a site file writes them. */
export async function listInstruments(): Promise<NonNullable<Site['instruments']>> {
  return (await instrumentsOnBench()).instruments;
}

/** The same, and the channels of those that cannot be read: one of them must not take every page with it. */
export async function instrumentsOnBench(): Promise<{
  readonly instruments: NonNullable<Site['instruments']>;
  readonly unreadable: readonly string[];
}> {
  const rows: unknown[] = await (await database())('instruments').orderBy('id');
  const read = rows.map((row) => {
    const { id, instrument } = instrumentRowSchema.parse(row);
    return { id, found: instrumentIn(instrument) };
  });
  return {
    instruments: read.flatMap(({ found }) => found ?? []),
    unreadable: read.flatMap(({ id, found }) => (found ? [] : [id])),
  };
}

/** The instrument that a text describes; null where it describes none that is known here. */
function instrumentIn(text: string): NonNullable<Site['instruments']>[number] | null {
  try {
    return siteInstrumentSchema.parse(JSON.parse(text));
  } catch {
    return null;
  }
}

/** Stores the instrument of a channel, in place of the one before. */
export async function storeInstrument(instrument: NonNullable<Site['instruments']>[number]): Promise<void> {
  const checked = siteInstrumentSchema.parse(instrument);
  await (
    await database()
  )('instruments')
    .insert({ id: checked.channel, set_name: 'Bench', instrument: JSON.stringify(checked) })
    .onConflict('id')
    .merge();
}

/** Takes a channel's instrument off; what it was stays on record for a while. */
export async function removeInstrument(channel: string, at: string): Promise<void> {
  const db = await database();
  await db.transaction(async (trx) => {
    const row = (await trx('instruments').where({ id: channel }).first()) as { instrument: string } | undefined;
    if (!row) return;
    await trx('instruments_taken_off').insert({ channel, instrument: row.instrument, at });
    await trx('instruments').where({ id: channel }).delete();
  });
}

const takenOffSchema = z.object({ id: z.number(), instrument: z.string(), at: z.string() });

export interface TakenOff {
  readonly id: number;
  readonly instrument: NonNullable<Site['instruments']>[number];
  readonly at: string;
}

/** Instruments that were taken off since a moment, latest first. */
export async function instrumentsTakenOff(since: string): Promise<TakenOff[]> {
  const rows: unknown[] = await (
    await database()
  )('instruments_taken_off')
    .where('at', '>=', since)
    .orderBy('id', 'desc');
  return rows.flatMap((row) => {
    const { instrument, ...rest } = takenOffSchema.parse(row);
    const found = instrumentIn(instrument);
    return found ? [{ ...rest, instrument: found }] : [];
  });
}

export async function forgetTakenOff(id: number): Promise<void> {
  await (await database())('instruments_taken_off').where({ id }).delete();
}
