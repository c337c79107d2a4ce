import * as z from 'zod';
import { channels } from '@/core/quantities/channels';
import { findUnit, unitOf } from '@/core/quantities/measurement-unit';
import {
  forgetTakenOff,
  instrumentsOnBench,
  instrumentsTakenOff,
  listInstruments,
  removeInstrument,
  storeInstrument,
  type TakenOff,
} from '@/data/settings';
import { changeShop } from './change-shop';
import { dayAgo } from '../context/day-ago';
import { RequestRefused } from '../http/refused';

const day = z.iso.date('Write it as a date').or(z.literal('')).default('');
const positive = (what: string) => z.number({ error: what }).positive(what);

export const instrumentFormSchema = z.object({
  channel: z.string().max(80),
  name: z.string().trim().min(2, 'Give it the name the shop knows it by').max(80),
  range: positive('Full scale, more than zero'),
  resolution: z.number({ error: 'Smallest division, 0 or more' }).min(0, 'Smallest division, 0 or more'),
  unit: z.string().max(20),
  classPercent: positive('Class in per cent, more than zero').max(20, 'A class above 20 % measures nothing'),
  classOf: z.enum(['full-scale', 'reading']),
  stabilityPercent: z
    .number({ error: 'Per cent of its class, 0 to 100' })
    .min(0, 'Per cent of its class, 0 to 100')
    .max(100, 'Per cent of its class, 0 to 100')
    .optional(),
  lagSeconds: z.number({ error: 'Seconds, 0 to 5' }).min(0, 'Seconds, 0 to 5').max(5, 'Seconds, 0 to 5').optional(),
  calibratedOn: day,
  dueOn: day,
});

export type InstrumentForm = z.infer<typeof instrumentFormSchema>;

/** Mounts an instrument on a channel of the bench; the one that was there before is replaced. */
export async function mountInstrument(form: InstrumentForm): Promise<{ version: number }> {
  const refuse = (field: keyof InstrumentForm, message: string): never => {
    throw new RequestRefused(422, 'Some fields need another look.', { [field]: message });
  };
  const channel = channels.find((each) => each.id === form.channel);
  if (!channel) return refuse('channel', 'Choose what it measures');
  const unit = findUnit(form.unit);
  if (!unit || unit.dimension !== unitOf(channel.fileUnit).dimension)
    return refuse('unit', `"${form.unit}" does not measure this: write it in ${channel.fileUnit}, for instance`);
  if (form.resolution >= form.range) return refuse('resolution', 'must be smaller than the range');
  if (form.calibratedOn !== '' && form.dueOn !== '' && form.dueOn <= form.calibratedOn)
    return refuse('dueOn', 'must be after the calibration');
  const { calibratedOn, dueOn, ...rest } = form;
  const instrument = {
    ...rest,
    unit: unit.symbol,
    ...(calibratedOn === '' ? {} : { calibratedOn }),
    ...(dueOn === '' ? {} : { dueOn }),
  };
  const same = (one: object, other: object) => JSON.stringify(sorted(one)) === JSON.stringify(sorted(other));
  return changeShop(
    ofChannel(form.channel),
    async () => ({ already: (await listInstruments()).some((each) => same(each, instrument)) }),
    (trx) => storeInstrument(trx, instrument),
  );
}

const sorted = (record: object) => Object.entries(record).sort(([p], [q]) => p.localeCompare(q));

/** The instrument of a channel as a record that is changed by itself. */
const ofChannel = (channel: string) => ({ key: `instrument ${channel}`, title: 'This instrument has been' });

/** Takes the instrument off a channel: the stand-in's own takes its place. */
export async function unmountInstrument(channel: string): Promise<{ version: number }> {
  return changeShop(
    ofChannel(channel),
    async () => {
      const { instruments, unreadable } = await instrumentsOnBench();
      return { already: !unreadable.includes(channel) && !instruments.some((each) => each.channel === channel) };
    },
    (trx) => removeInstrument(trx, channel, new Date().toISOString()),
  );
}

/** Instruments that were taken off within the day and whose channel has none since. */
export async function takenOffToday(): Promise<TakenOff[]> {
  const mounted = new Set((await listInstruments()).map((each) => each.channel));
  const seen = new Set<string>();
  return (await instrumentsTakenOff(dayAgo())).filter(({ instrument: { channel } }) => {
    if (mounted.has(channel) || seen.has(channel)) return false;
    seen.add(channel);
    return true;
  });
}

/** Puts an instrument back that was taken off within the day. */
export async function putBackInstrument(id: number): Promise<{ version: number }> {
  const find = async () => {
    const found = (await takenOffToday()).find((each) => each.id === id);
    if (!found)
      throw new RequestRefused(
        409,
        'Its channel has another instrument by now, or it was taken off longer than a day ago.',
      );
    return found;
  };
  const { instrument } = await find();
  return changeShop(
    ofChannel(instrument.channel),
    async () => {
      await find();
      return { already: false };
    },
    async (trx) => {
      await storeInstrument(trx, instrument);
      await forgetTakenOff(trx, id);
    },
  );
}
