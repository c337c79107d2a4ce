import { airTemperatureOf } from '@/core/formats/site-instrument';
import { ambientFrom, type Ambient, type Air } from '@/core/quantities/standard-atmosphere';
import { loadShop, type Shop } from './shop-now';

/** Today's air at the shop. */
export const ambientOf = ({ site }: Pick<Shop, 'site'>): Ambient =>
  ambientFrom({
    altitude: site.altitudeM,
    barometer: site.barometerKpa === undefined ? undefined : site.barometerKpa * 1e3,
  });

export const ambientNow = async (): Promise<Ambient> => ambientOf(await loadShop());

/** Today's air, for what is drawn of it. */
export const airOf = (shop: Pick<Shop, 'site'>): Air => ({
  pressure: ambientOf(shop).pressure,
  temperature: airTemperatureOf(shop.site),
});

/** Today's air in words: "Air 85.4 kPa absolute, 11 °C". */
export function airText(shop: Pick<Shop, 'site'>): string {
  const { airTemperatureC } = shop.site;
  const temperature = airTemperatureC === undefined ? '' : `, ${airTemperatureC} °C`;
  return `Air ${(ambientOf(shop).pressure / 1e3).toFixed(1)} kPa absolute${temperature}`;
}
