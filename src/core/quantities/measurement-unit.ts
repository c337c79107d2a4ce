/** Measurement units that a shop reads and writes, with their factors to SI. */
export type Dimension =
  | 'pressure'
  | 'force'
  | 'length'
  | 'volume'
  | 'temperature'
  | 'torque'
  | 'time'
  | 'ratio'
  | 'percent'
  | 'pressure-rate'
  | 'volume-flow'
  | 'voltage'
  | 'current'
  | 'angle'
  | 'rotation'
  | 'speed'
  | 'angle-rate'
  | 'acceleration'
  | 'slope-per-force'
  | 'slope-per-angle'
  | 'force-per-pressure'
  | 'stiffness'
  | 'creep'
  | 'energy'
  | 'count';

export interface MeasurementUnit {
  readonly symbol: string;
  readonly dimension: Dimension;
  /** SI value = shown · factor + offset. */
  readonly factor: number;
  readonly offset: number;
  /** Other spellings accepted on input, lower case. */
  readonly aliases: readonly string[];
}

function unit(
  symbol: string,
  dimension: Dimension,
  factor: number,
  aliases: readonly string[] = [],
  offset = 0,
): MeasurementUnit {
  return { symbol, dimension, factor, offset, aliases };
}

/**
 * Factors are exact by definition or to seven digits.
 * Source: BIPM SI brochure (9th ed.) and NIST SP 811 appendix B for inHg, mmHg, psi, lbf.
 */
export const measurementUnits: readonly MeasurementUnit[] = [
  unit('Pa', 'pressure', 1),
  unit('kPa', 'pressure', 1e3),
  unit('MPa', 'pressure', 1e6),
  unit('bar', 'pressure', 1e5),
  unit('mbar', 'pressure', 100),
  unit('hPa', 'pressure', 100),
  unit('cmHg', 'pressure', 1333.224, ['cm hg']),
  unit('psi', 'pressure', 6894.757, ['lbf/in2', 'lbf/in²', 'psig', 'psia']),
  unit('inHg', 'pressure', 3386.389, ['"hg', 'in hg', 'in.hg', 'in. hg', 'inches hg']),
  unit('mmHg', 'pressure', 133.3224, ['torr', 'mm hg']),
  unit('kgf/cm2', 'pressure', 98066.5, ['kg/cm2', 'kgf/cm²', 'kg/cm²']),
  unit('inH2O', 'pressure', 249.0889, ['in h2o', 'inh₂o', 'in. h2o', '"h2o']),
  unit('mmH2O', 'pressure', 9.80665, ['mm h2o', 'mmh₂o']),
  unit('atm', 'pressure', 101_325),
  unit('N/mm2', 'pressure', 1e6, ['n/mm²']),
  unit('N', 'force', 1, ['newton', 'newtons']),
  unit('daN', 'force', 10),
  unit('kN', 'force', 1e3),
  unit('lbf', 'force', 4.448222, ['lb', 'lbs', 'pound', 'pounds']),
  unit('kgf', 'force', 9.80665, ['kp', 'kg']),
  unit('m', 'length', 1),
  unit('mm', 'length', 1e-3),
  unit('cm', 'length', 1e-2),
  unit('in', 'length', 0.0254, ['inch', 'inches', '"']),
  unit('ft', 'length', 0.3048, ['foot', 'feet']),
  unit('cm3', 'volume', 1e-6, ['cm³', 'ccm', 'cc', 'ml']),
  unit('L', 'volume', 1e-3, ['litre', 'litres', 'liter']),
  unit('in3', 'volume', 1.6387064e-5, ['in³', 'cu in']),
  unit('K', 'temperature', 1),
  unit('°C', 'temperature', 1, ['c', 'degc'], 273.15),
  unit('°F', 'temperature', 5 / 9, ['f', 'degf'], 459.67 * (5 / 9)),
  unit('N·m', 'torque', 1, ['nm']),
  unit('lbf·ft', 'torque', 1.355818, ['ft-lb', 'lb-ft', 'ft-lbf']),
  unit('s', 'time', 1, ['sec', 'secs', 'second', 'seconds']),
  unit('ms', 'time', 1e-3, ['msec', 'millisecond', 'milliseconds']),
  unit('µs', 'time', 1e-6, ['us', 'μs', 'usec', 'microsecond', 'microseconds']),
  unit('min', 'time', 60, ['mins', 'minute', 'minutes']),
  unit('h', 'time', 3600, ['hr', 'hrs', 'hour', 'hours']),
  unit('d', 'time', 86_400, ['day', 'days']),
  unit('1', 'ratio', 1, ['']),
  unit('strokes', 'count', 1),
  unit('times', 'count', 1),
  unit('%', 'percent', 0.01),
  unit('kPa/min', 'pressure-rate', 1e3 / 60),
  unit('MPa/min', 'pressure-rate', 1e6 / 60),
  unit('psi/min', 'pressure-rate', 6894.757 / 60),
  unit('bar/min', 'pressure-rate', 1e5 / 60),
  unit('cm3/min', 'volume-flow', 1e-6 / 60, ['cm³/min', 'sccm']),
  unit('L/min', 'volume-flow', 1e-3 / 60, ['l/min']),
  unit('V', 'voltage', 1),
  unit('A', 'current', 1),
  unit('mA', 'current', 1e-3),
  unit('mV', 'voltage', 1e-3),
  unit('°', 'angle', 1, ['deg']),
  unit('m/s²', 'acceleration', 1, ['m/s2']),
  unit('°/s', 'angle-rate', 1, ['deg/s', 'dps']),
  unit('1/min', 'rotation', 1 / 60, ['rpm']),
  unit('km/h', 'speed', 1 / 3.6, ['kph']),
  unit('m/s', 'speed', 1),
  unit('mph', 'speed', 0.44704),
  unit('N/mm', 'stiffness', 1e3),
  unit('lbf/in', 'stiffness', 4.448222 / 0.0254),
  unit('mm/min', 'creep', 1e-3 / 60),
  unit('in/min', 'creep', 0.0254 / 60),
  unit('J', 'energy', 1),
  unit('kJ', 'energy', 1e3),
  unit('kPa/N', 'slope-per-force', 1e3),
  unit('bar/N', 'slope-per-force', 1e5),
  unit('psi/lbf', 'slope-per-force', 6894.757 / 4.448222),
  unit('N/kPa', 'force-per-pressure', 1e-3),
  unit('N/bar', 'force-per-pressure', 1e-5),
  unit('lbf/psi', 'force-per-pressure', 4.448222 / 6894.757),
  unit('kPa/°', 'slope-per-angle', 1e3, ['kpa/deg']),
  unit('bar/°', 'slope-per-angle', 1e5, ['bar/deg']),
  unit('psi/°', 'slope-per-angle', 6894.757, ['psi/deg']),
];

const bySpelling = new Map<string, MeasurementUnit>();
for (const each of measurementUnits) {
  bySpelling.set(each.symbol.toLowerCase(), each);
  for (const alias of each.aliases) bySpelling.set(alias, each);
}

/** Finds a unit by any accepted spelling; undefined when nobody here writes it that way. */
export function findUnit(spelling: string): MeasurementUnit | undefined {
  const trimmed = spelling.trim();
  // M and m matter for pressures only (MPa, mbar); look for the exact symbol first.
  return measurementUnits.find((each) => each.symbol === trimmed) ?? bySpelling.get(trimmed.toLowerCase());
}

/** Symbols of the units that measure one thing, as a person may write them. */
export function symbolsOf(dimension: Dimension): readonly string[] {
  return measurementUnits.flatMap((each) => (each.dimension === dimension ? [each.symbol] : []));
}

/** The unit of a symbol that the program itself wrote; throws on a programmer's error. */
export function unitOf(symbol: string): MeasurementUnit {
  const found = findUnit(symbol);
  if (!found) throw new Error(`no measurement unit "${symbol}"`);
  return found;
}

/** SI value of a figure shown in `unitShown`. */
export function toSi(shown: number, unitShown: MeasurementUnit): number {
  return shown * unitShown.factor + unitShown.offset;
}

/** Figure in `unitShown` of an SI value. */
export function fromSi(si: number, unitShown: MeasurementUnit): number {
  return (si - unitShown.offset) / unitShown.factor;
}
