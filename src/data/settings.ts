import type { Knex } from 'knex';
import * as z from 'zod';
import { instrumentSchema, placeSchema, type Site } from '@/core/formats/site-instrument';
import { prevalences } from '@/core/contract/prevalence';
import { database } from './database';

/** What a workshop sets once: where it is, its air today, how it decides, its measurement units. */
export const shopSettingsSchema = z.object({
  shopName: z.string().trim().min(1, 'Give the workshop a name').max(80, 'A shorter name, please'),
  site: placeSchema,
  policy: z.enum(['guarded', 'simple']),
});

export type ShopSettings = z.infer<typeof shopSettingsSchema>;

const prevalencesSchema = z.record(z.string(), z.record(z.string(), z.enum(prevalences)));

const fallback: ShopSettings = { shopName: 'Workshop', site: { altitudeM: 0, airTemperatureC: 20 }, policy: 'guarded' };

export type Prevalence = z.infer<typeof prevalencesSchema>[string];

/** What a workshop has set, read at once, and which parts of it are damaged: the fallback stands in their place. */
export interface LoadedSettings {
  readonly settings: ShopSettings;
  readonly prevalences: z.infer<typeof prevalencesSchema>;
  readonly broken: readonly ('settings' | 'prevalences')[];
}

export async function loadSettings(): Promise<LoadedSettings> {
  const rows = (await (await database())('settings').select('key', 'value')) as { key: string; value: string }[];
  const broken: LoadedSettings['broken'][number][] = [];
  const read = <T extends z.ZodType>(key: string, as: (typeof broken)[number], schema: T, otherwise: z.infer<T>) => {
    const row = rows.find((each) => each.key === key);
    if (!row) return otherwise;
    try {
      return schema.parse(JSON.parse(row.value)) as z.infer<T>;
    } catch (error) {
      console.error(`the workshop’s ${as} cannot be read`, error);
      broken.push(as);
      return otherwise;
    }
  };
  return {
    settings: read('shop', 'settings', shopSettingsSchema, fallback),
    prevalences: read('prevalences', 'prevalences', prevalencesSchema, {}),
    broken,
  };
}

export async function readShopSettings(): Promise<ShopSettings> {
  return (await loadSettings()).settings;
}

export async function writeShopSettings(settings: ShopSettings, trx?: Knex): Promise<void> {
  const db = trx ?? (await database());
  await db('settings')
    .insert({ key: 'shop', value: JSON.stringify(settings) })
    .onConflict('key')
    .merge();
}

/** How common each fault is in this workshop, by family; what is left out is as the family says. */
export async function readPrevalences(): Promise<z.infer<typeof prevalencesSchema>> {
  return (await loadSettings()).prevalences;
}

/** Keeps how common faults are, by family, in place of what was said before. */
export async function writePrevalences(trx: Knex, all: z.infer<typeof prevalencesSchema>): Promise<void> {
  const value = JSON.stringify(prevalencesSchema.parse(all));
  await trx('settings').insert({ key: 'prevalences', value }).onConflict('key').merge();
}

const personSchema = z.object({ id: z.string(), name: z.string(), role: z.string() });
export type Person = z.infer<typeof personSchema>;

export async function listPeople(): Promise<Person[]> {
  const rows: unknown[] = await (await database())('people').orderBy('name');
  // One damaged row is nobody; the others are still there.
  return rows.flatMap((row) => personSchema.safeParse(row).data ?? []);
}

/** Keeps who works here in place of the list before. */
export async function writePeople(people: readonly Person[], trx: Knex): Promise<void> {
  await trx('people').delete();
  if (people.length > 0) await trx('people').insert(people.map((each) => personSchema.parse(each)));
}

const instrumentRowSchema = z.object({ id: z.string(), set_name: z.string(), instrument: z.string() });
const siteInstrumentSchema = instrumentSchema;

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
export async function storeInstrument(trx: Knex, instrument: NonNullable<Site['instruments']>[number]): Promise<void> {
  const checked = siteInstrumentSchema.parse(instrument);
  await trx('instruments')
    .insert({ id: checked.channel, set_name: 'Bench', instrument: JSON.stringify(checked) })
    .onConflict('id')
    .merge();
}

/** Takes a channel's instrument off; what it was stays on record for a while. */
export async function removeInstrument(trx: Knex, channel: string, at: string): Promise<void> {
  const row = (await trx('instruments').where({ id: channel }).first()) as { instrument: string } | undefined;
  if (!row) return;
  await trx('instruments_taken_off').insert({ channel, instrument: row.instrument, at });
  await trx('instruments').where({ id: channel }).delete();
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

export async function forgetTakenOff(trx: Knex, id: number): Promise<void> {
  await trx('instruments_taken_off').where({ id }).delete();
}
