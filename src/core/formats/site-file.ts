import { z } from 'zod';
import type { Shell } from '../procedure/shell-temperature';
import { defaultWorkshopLimits } from '../families';
import { defaultWorkshopSchools } from '../procedure/workshop-limits';
import { noCorrections } from '../procedure/step-analysis';
import type { PlanId, StepContext } from '../procedure/step-context';
import { instrumentsByChannel } from '../instruments/default-instruments';
import type { Instrument } from '../instruments/instrument';
import { channels, findChannel } from '../quantities/channels';
import { findUnit, toSi, unitOf } from '../quantities/measurement-unit';
import { ambientFrom } from '../quantities/standard-atmosphere';
import { readFailed, readOk, type Read } from './read-result';
import { fieldProblems, parseJson, type UnitSheet } from './unit-sheet';

const isoDate = z.iso.date();

const instrumentSchema = z
  .strictObject({
    channel: z.string().refine((id) => findChannel(id) !== undefined, {
      error: `must be one of ${channels.map((each) => each.id).join(', ')}`,
    }),
    name: z.string().max(120).optional(),
    range: z.number().positive(),
    resolution: z.number().min(0),
    unit: z.string(),
    classPercent: z.number().min(0).max(50),
    classOf: z.enum(['full-scale', 'reading']),
    /** What it may drift by over a minute, % of its class; 10 where nothing is said. */
    stabilityPercent: z.number().min(0).max(100).optional(),
    /** How late it reads, its line with it, s. */
    lagSeconds: z.number().min(0).max(5).optional(),
    calibratedOn: isoDate.optional(),
    dueOn: isoDate.optional(),
  })
  .superRefine((instrument, context) => {
    const unit = findUnit(instrument.unit);
    const needed = findChannel(instrument.channel)?.dimension;
    if (!unit || unit.dimension !== needed)
      context.addIssue({
        code: 'custom',
        path: ['unit'],
        message: `"${instrument.unit}" does not fit ${instrument.channel}`,
      });
  });

/** A figure between two others; what is wrong is said as it stands beside a form's field, too. */
function figureWithin(low: number, high: number) {
  const error = `Needs a figure from ${low} to ${high}`;
  return z.number({ error }).min(low, error).max(high, error);
}

/** Site file: everything optional; pressures kPa, a station barometer wins over the altitude. */
export const siteSchema = z.strictObject({
  altitudeM: figureWithin(-500, 9000).optional(),
  barometerKpa: figureWithin(30, 110).optional(),
  airTemperatureC: figureWithin(-60, 70).optional(),
  /** Of a store's shell where it was measured; and whether it stood in the shop's air for an hour. */
  shellTemperatureC: figureWithin(-60, 120).optional(),
  shellSettled: z.boolean().optional(),
  benchVolumeCm3: figureWithin(0, 1e6).optional(),
  /** Where practitioners disagree, the school the workshop follows. */
  schools: z
    .strictObject({
      leastVacuum: z.enum(['both', 'sixteen', 'eighteen']).default(defaultWorkshopSchools.leastVacuum),
      exhaust: z.enum(['count', 'two-alike']).default(defaultWorkshopSchools.exhaust),
    })
    .optional(),
  instruments: z.array(instrumentSchema).optional(),
});

export type Site = z.infer<typeof siteSchema>;
export type SiteInstrument = z.infer<typeof instrumentSchema>;

/** Reads a site file from JSON text. */
export function readSite(text: string, file: string): Read<Site> {
  const json = parseJson(text, file);
  if (!json.ok) return json;
  const parsed = siteSchema.safeParse(json.value);
  return parsed.success ? readOk(parsed.data) : readFailed(...fieldProblems(file, parsed.error));
}

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

/** What a site knows of the shells of stores. */
export function shellOf(site: Site): Shell {
  return site.shellTemperatureC === undefined
    ? { kind: 'as-air', settled: site.shellSettled ?? false }
    : { kind: 'stated', temperature: toSi(site.shellTemperatureC, unitOf('°C')) };
}

/** Context for the steps of a unit at a site on a date (ISO). */
export function contextAt(
  sheet: UnitSheet,
  site: Site,
  date: string,
  plan: PlanId = sheet.kind.plans[0].id,
): StepContext<unknown> {
  return {
    unit: sheet.unit,
    ambient: ambientFrom({
      altitude: site.altitudeM,
      barometer: site.barometerKpa === undefined ? undefined : site.barometerKpa * 1e3,
    }),
    airTemperature: airTemperatureOf(site),
    shell: shellOf(site),
    benchVolume: site.benchVolumeCm3 === undefined ? null : site.benchVolumeCm3 * 1e-6,
    instruments: instrumentsByChannel((site.instruments ?? []).map(instrumentFromSite)),
    date,
    corrections: noCorrections,
    workshopLimits: defaultWorkshopLimits,
    schools: site.schools ?? defaultWorkshopSchools,
    plan,
  };
}
