import * as z from 'zod';
import type { Shell } from '../procedure/shell-temperature';
import { defaultWorkshopLimits } from '../families/registry';
import { defaultWorkshopSchools } from '../procedure/workshop-limits';
import { noCorrections } from '../procedure/step-analysis';
import type { PlanId, StepContext } from '../procedure/step-context';
import { instrumentsByChannel } from '../instruments/default-instruments';
import { channels, findChannel } from '../quantities/channels';
import { findUnit, toSi, unitOf } from '../quantities/measurement-unit';
import { ambientFrom } from '../quantities/standard-atmosphere';
import { airTemperatureOf, instrumentFromSite, instrumentSchema, placeSchema, type Site } from './site-instrument';
import { shopDay } from '../wording/shop-time';
import { readFailed, readOk, type Read } from './read-result';
import { fieldProblems, parseJson, type UnitSheet } from './unit-sheet';

/** An instrument of a file: its channel is one that is known, and measured in its unit. */
const readInstrument = instrumentSchema.superRefine((instrument, context) => {
  const channel = findChannel(instrument.channel);
  if (!channel)
    context.addIssue({
      code: 'custom',
      path: ['channel'],
      message: `must be one of ${channels.map((each) => each.id).join(', ')}`,
    });
  else if (findUnit(instrument.unit)?.dimension !== channel.dimension)
    context.addIssue({
      code: 'custom',
      path: ['unit'],
      message: `"${instrument.unit}" does not fit ${instrument.channel}`,
    });
});

/** Site file: everything optional; pressures kPa, a station barometer wins over the altitude. */
export const siteSchema = placeSchema.extend({ instruments: z.array(readInstrument).optional() });

/** Reads a site file from JSON text. */
export function readSite(text: string, file: string): Read<Site> {
  const json = parseJson(text, file);
  if (!json.ok) return json;
  const parsed = siteSchema.safeParse(json.value);
  return parsed.success ? readOk(parsed.data) : readFailed(...fieldProblems(file, parsed.error));
}

export { airTemperatureOf, instrumentFromSite, type Site, type SiteInstrument } from './site-instrument';

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
    // Calibrations fall due by the shop's day.
    date: date.includes('T') ? shopDay(date, site.timeZone ?? 'UTC') : date,
    corrections: noCorrections,
    workshopLimits: defaultWorkshopLimits,
    schools: site.schools ?? defaultWorkshopSchools,
    plan,
  };
}
