import { quantity, type AbsolutePressure } from './quantity';

/** Standard pressure at sea level, Pa (ISO 2533). */
export const seaLevelPressure = quantity<AbsolutePressure>(101_325);

/** A station barometer further than this from the altitude's value is questioned, Pa. */
export const barometerQuestionedBeyond = 5_000;

/**
 * Local atmosphere (Pa, absolute) at `altitude` (m above the sea, −500 … 11,000),
 * p = 101.325 kPa · (1 − 2.25577e-5·h)^5.25588. Source: ISO 2533:1975, troposphere.
 */
export function standardAtmosphere(altitude: number): AbsolutePressure {
  return quantity<AbsolutePressure>(seaLevelPressure * (1 - 2.25577e-5 * altitude) ** 5.25588);
}

export type AmbientSource = 'station-barometer' | 'standard-atmosphere' | 'sea-level-assumed';

export interface Ambient {
  /** Pa, absolute. */
  readonly pressure: AbsolutePressure;
  readonly source: AmbientSource;
  /** Set when a barometer disagrees with the altitude by more than 5 kPa: probably reduced to sea level. Pa. */
  readonly questionedBy: number | null;
}

/** Standard uncertainty of a station barometer's figure, of the standard atmosphere on an ordinary day, and of a guess, Pa. */
const barometerStandard = 100;
const weatherStandard = 1_000;
/** A place of which nothing is known: somewhere between the sea and some 1,500 m. */
const unknownAltitudeStandard = 6_000;

/**
 * Standard uncertainty of the local atmosphere, Pa: a barometer's own, the weather's where only the altitude is known, and
 * wide where not even that is, or where barometer and altitude contradict each other.
 */
export function ambientStandard({ source, questionedBy }: Pick<Ambient, 'source' | 'questionedBy'>): number {
  if (questionedBy !== null) return Math.abs(questionedBy) / Math.sqrt(3);
  switch (source) {
    case 'station-barometer':
      return barometerStandard;
    case 'standard-atmosphere':
      return weatherStandard;
    case 'sea-level-assumed':
      return unknownAltitudeStandard;
  }
}

/** Today's air from a station barometer (Pa) if there is one, else from the altitude (m), else sea level. */
export function ambientFrom(site: { altitude?: number; barometer?: number }): Ambient {
  const standard = site.altitude === undefined ? null : standardAtmosphere(site.altitude);
  if (site.barometer !== undefined) {
    const difference = standard === null ? 0 : site.barometer - standard;
    return {
      pressure: quantity<AbsolutePressure>(site.barometer),
      source: 'station-barometer',
      questionedBy: Math.abs(difference) > barometerQuestionedBeyond ? difference : null,
    };
  }
  if (standard !== null) return { pressure: standard, source: 'standard-atmosphere', questionedBy: null };
  return { pressure: seaLevelPressure, source: 'sea-level-assumed', questionedBy: null };
}

/** Today's air: pressure (Pa absolute) and temperature (K). */
export interface Air {
  readonly pressure: number;
  readonly temperature: number;
}
