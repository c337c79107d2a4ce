import * as z from 'zod';
import type { Instrument } from '../instruments/instrument';
import { findUnit, toSi, unitOf } from '../quantities/measurement-unit';
import { isTimeZone } from '../wording/shop-time';
import { defaultWorkshopSchools } from '../procedure/workshop-limits';

const isoDate = z.iso.date();

const instrumentFields = z.strictObject({
  channel: z.string(),
  name: z.string().max(120).optional(),
  range: z.number().positive(),
  resolution: z.number().min(0),
  unit: z.string().refine((unit) => findUnit(unit) !== undefined, { error: 'is no unit that is known here' }),
  classPercent: z.number().min(0).max(50),
  classOf: z.enum(['full-scale', 'reading']),
  /** What it may drift by over a minute, % of its class; 10 where nothing is said. */
  stabilityPercent: z.number().min(0).max(100).optional(),
  /** How late it reads, its line with it, s. */
  lagSeconds: z.number().min(0).max(5).optional(),
  calibratedOn: isoDate.optional(),
  dueOn: isoDate.optional(),
});

/** A figure between two others; what is wrong is said as it stands beside a form's field, too. */
function figureWithin(low: number, high: number) {
  const error = `Needs a figure from ${low} to ${high}`;
  return z.number({ error }).min(low, error).max(high, error);
}

/** Everything of a site but its instruments; pressures kPa, a station barometer wins over the altitude. */
export const placeSchema = z.strictObject({
  altitudeM: figureWithin(-500, 9000).optional(),
  barometerKpa: figureWithin(30, 110).optional(),
  airTemperatureC: figureWithin(-60, 70).optional(),
  /** Of a store's shell where it was measured; and whether it stood in the shop's air for an hour. */
  shellTemperatureC: figureWithin(-60, 120).optional(),
  shellSettled: z.boolean().optional(),
  benchVolumeCm3: figureWithin(0, 1e6).optional(),
  /** Time zone (IANA) by which its days begin; where nothing is said, UTC. */
  timeZone: z.string().max(60).refine(isTimeZone, { error: 'Choose a time zone that is known here' }).optional(),
  /** Where practitioners disagree, the school the workshop follows. */
  schools: z
    .strictObject({
      leastVacuum: z.enum(['both', 'sixteen', 'eighteen']).default(defaultWorkshopSchools.leastVacuum),
      exhaust: z.enum(['count', 'two-alike']).default(defaultWorkshopSchools.exhaust),
    })
    .optional(),
});

/** An instrument whose channel nobody has looked up yet. */
export const instrumentSchema = instrumentFields;

/** A site as a workshop has stored it: what its channels are called was looked up when it was entered. */
export const storedSiteSchema = placeSchema.extend({ instruments: z.array(instrumentSchema).optional() });

export type Site = z.infer<typeof storedSiteSchema>;
export type SiteInstrument = z.infer<typeof instrumentSchema>;

/** An instrument in SI. */
export function instrumentFromSite(given: SiteInstrument): Instrument {
  const { factor } = unitOf(given.unit);
  return {
    channel: given.channel,
    name: given.name ?? `${given.channel}, ${given.range} ${given.unit}`,
    range: given.range * factor,
    resolution: given.resolution * factor,
    classFraction: given.classPercent / 100,
    classOf: given.classOf,
    ...(given.stabilityPercent === undefined ? {} : { stabilityShare: given.stabilityPercent / 100 }),
    ...(given.lagSeconds === undefined ? {} : { lagSeconds: given.lagSeconds }),
    calibratedOn: given.calibratedOn ?? null,
    dueOn: given.dueOn ?? null,
  };
}

/** Air temperature assumed where nobody measured it, °C. */
const assumedAirTemperature = 20;

/** Air temperature (K) at a site; assumed where nobody measured it. */
export function airTemperatureOf(site: Site): number {
  return toSi(site.airTemperatureC ?? assumedAirTemperature, unitOf('°C'));
}
