import { airTemperatureOf } from '@/core/formats/site-file';
import { ambientFrom, type Ambient, type Air } from '@/core/quantities/standard-atmosphere';
import { readShopSettings } from '@/data/settings';

/** Today's air at the shop. */
export async function ambientNow(): Promise<Ambient> {
  const { site } = await readShopSettings();
  return ambientFrom({
    altitude: site.altitudeM,
    barometer: site.barometerKpa === undefined ? undefined : site.barometerKpa * 1e3,
  });
}

/** Today's air, for what is drawn of it. */
export async function airNow(): Promise<Air> {
  const [{ site }, ambient] = await Promise.all([readShopSettings(), ambientNow()]);
  return { pressure: ambient.pressure, temperature: airTemperatureOf(site) };
}

/** Today's air in words: "Air 85.4 kPa absolute, 11 °C". */
export async function airText(): Promise<string> {
  const [{ site }, ambient] = await Promise.all([readShopSettings(), ambientNow()]);
  const temperature = site.airTemperatureC === undefined ? '' : `, ${site.airTemperatureC} °C`;
  return `Air ${(ambient.pressure / 1e3).toFixed(1)} kPa absolute${temperature}`;
}
