import type { Characteristic } from '../procedure/step-analysis';
import { fromSi, unitOf, type MeasurementUnit } from '../quantities/measurement-unit';
import type { ShownAs } from '../quantities/shown-as';

/** The shop's own measurement units, one set chosen for everything shown. */
export interface DisplayUnits {
  readonly id: 'kpa' | 'bar' | 'psi';
  readonly title: string;
  readonly pressure: string;
  readonly vacuum: string;
  /** Small differences of hydraulic pressure. */
  readonly difference: string;
  readonly pressureRate: string;
  readonly force: string;
  readonly length: string;
  readonly slopePerForce: string;
  readonly slopePerAngle: string;
  readonly forcePerPressure: string;
  readonly torque: string;
  readonly speed: string;
  readonly temperature: string;
}

export const displayUnitSets: readonly DisplayUnits[] = [
  {
    id: 'kpa',
    title: 'MPa and kPa',
    pressure: 'MPa',
    vacuum: 'kPa',
    difference: 'kPa',
    pressureRate: 'kPa/min',
    force: 'N',
    length: 'mm',
    slopePerForce: 'kPa/N',
    slopePerAngle: 'kPa/°',
    forcePerPressure: 'N/kPa',
    torque: 'N·m',
    speed: 'km/h',
    temperature: '°C',
  },
  {
    id: 'bar',
    title: 'bar and mbar',
    pressure: 'bar',
    vacuum: 'mbar',
    difference: 'bar',
    pressureRate: 'bar/min',
    force: 'N',
    length: 'mm',
    slopePerForce: 'bar/N',
    slopePerAngle: 'bar/°',
    forcePerPressure: 'N/bar',
    torque: 'N·m',
    speed: 'km/h',
    temperature: '°C',
  },
  {
    id: 'psi',
    title: 'psi and inHg',
    pressure: 'psi',
    vacuum: 'inHg',
    difference: 'psi',
    pressureRate: 'psi/min',
    force: 'lbf',
    length: 'in',
    slopePerForce: 'psi/lbf',
    slopePerAngle: 'psi/°',
    forcePerPressure: 'lbf/psi',
    torque: 'lbf·ft',
    speed: 'mph',
    temperature: '°F',
  },
];

export function displayUnits(id: string): DisplayUnits {
  return displayUnitSets.find((set) => set.id === id) ?? displayUnitSets[0];
}

/** From which size on (SI) a figure stands in a larger unit, so that two to four digits stand before its mark. */
const largerUnits: Readonly<Record<string, { readonly from: number; readonly unit: string }>> = {
  'cm3/min': { from: 1e-2 / 60, unit: 'L/min' },
  mA: { from: 10, unit: 'A' },
  kPa: { from: 1e7, unit: 'MPa' },
  'kPa/min': { from: 1e7 / 60, unit: 'MPa/min' },
  s: { from: 6_000, unit: 'min' },
  J: { from: 1e4, unit: 'kJ' },
};

/** Unit in which a figure of `size` (SI) is shown; of a reading whose size changes leave it out, so that its unit stands still. */
export function shownUnit(as: ShownAs, units: DisplayUnits, size = 0): MeasurementUnit {
  const usual = usualUnit(as, units);
  const larger = largerUnits[usual.symbol];
  return larger && Math.abs(size) >= larger.from ? unitOf(larger.unit) : usual;
}

function usualUnit(as: ShownAs, units: DisplayUnits): MeasurementUnit {
  switch (as) {
    case 'gauge':
      return unitOf(units.pressure);
    case 'vacuum':
    case 'absolute':
    case 'vacuum-difference':
      return unitOf(units.vacuum);
    case 'difference':
      return unitOf(units.difference);
    case 'rate':
      return unitOf(units.pressureRate);
    case 'flow':
      return unitOf('cm3/min');
    case 'time':
      return unitOf('s');
    case 'pump-flow':
      return unitOf('L/min');
    case 'force':
      return unitOf(units.force);
    case 'length':
      return unitOf(units.length);
    case 'slope-per-force':
      return unitOf(units.slopePerForce);
    case 'slope-per-angle':
      return unitOf(units.slopePerAngle);
    case 'force-per-pressure':
      return unitOf(units.forcePerPressure);
    case 'angle':
      return unitOf('°');
    case 'current':
      return unitOf('A');
    case 'small-current':
      return unitOf('mA');
    case 'voltage':
      return unitOf('V');
    case 'long-time':
      return unitOf('h');
    case 'stiffness':
      return unitOf(units.length === 'in' ? 'lbf/in' : 'N/mm');
    case 'creep':
      return unitOf(units.length === 'in' ? 'in/min' : 'mm/min');
    case 'energy':
      return unitOf('J');
    case 'percent':
      return unitOf('%');
    case 'rotation':
      return unitOf('1/min');
    case 'torque':
      return unitOf(units.torque);
    case 'speed':
      return unitOf(units.speed);
    case 'angle-rate':
      return unitOf('°/s');
    case 'deceleration':
      return unitOf('m/s²');
    case 'distance':
      return unitOf('m');
    case 'volume':
      return unitOf('cm3');
    case 'temperature':
      return unitOf(units.temperature);
    case 'count':
      return unitOf('strokes');
    case 'tally':
      return unitOf('times');
    case 'ratio':
    case 'state':
      return unitOf('1');
  }
}

/** Decimals that a live reading of a unit is shown with. */
const liveDecimals: Readonly<Record<string, number>> = {
  MPa: 2,
  kPa: 1,
  bar: 1,
  mbar: 0,
  psi: 0,
  inHg: 1,
  s: 1,
  '1': 0,
  'kPa/min': 0,
  'MPa/min': 2,
  min: 1,
  kJ: 1,
  'bar/min': 2,
  'psi/min': 1,
  'cm3/min': 0,
  'L/min': 1,
  N: 0,
  lbf: 0,
  mm: 1,
  in: 2,
  '°': 1,
  A: 1,
  mA: 1,
  V: 2,
  h: 1,
  'N/mm': 1,
  'lbf/in': 0,
  'mm/min': 1,
  'in/min': 2,
  J: 0,
  '%': 1,
  '1/min': 0,
  'N·m': 0,
  'lbf·ft': 0,
  'km/h': 1,
  mph: 1,
  '°/s': 1,
  'm/s²': 2,
  m: 1,
  '°C': 1,
  '°F': 0,
};

/** A live reading, fixed decimals so that the figures stand still. */
export function liveFigure(si: number, unit: MeasurementUnit): string {
  if (!Number.isFinite(si)) return '–';
  return noMinusZero(fromSi(si, unit).toFixed(liveDecimals[unit.symbol] ?? 1));
}

function noMinusZero(text: string): string {
  return (/^-0(?:\.0*)?$/.test(text) ? text.slice(1) : text).replace('-', '−');
}

/**
 * Decimals so that U shows two significant figures (JCGM 100, 7.2.6), fewer than none for tens and hundreds; three
 * significant figures without a U, but never a limit or a setting rounded to tens.
 */
export function decimalsFor(value: number, expanded: number | null): number {
  const carried = expanded !== null && expanded > 0;
  const basis = carried ? expanded : Math.abs(value) / 10;
  if (!(basis > 0) || !Number.isFinite(basis)) return 2;
  return Math.min(6, Math.max(carried ? -9 : 0, 1 - Math.floor(Math.log10(basis))));
}

/** A value at so many decimals; at a whole ten, hundred … where they are negative. */
function rounded(value: number, decimals: number): string {
  if (decimals >= 0) return value.toFixed(decimals);
  const place = 10 ** -decimals;
  return (Math.round(value / place) * place).toFixed(0);
}

/** "1.78" or "1.783 ± 0.012", both in the shown unit, without its symbol. */
export function figure(si: number, unit: MeasurementUnit, expandedSi: number | null = null): string {
  const value = fromSi(si, unit);
  if (!Number.isFinite(value)) return '–';
  const expanded = expandedSi === null ? null : expandedSi / unit.factor;
  if (unit.dimension === 'count') return value.toFixed(0);
  const decimals = decimalsFor(value, expanded);
  const shown = noMinusZero(rounded(value, decimals));
  return expanded === null ? shown : `${shown} ± ${rounded(expanded, decimals)}`;
}

/** Size of what was found of a characteristic, SI, by which its unit is chosen. */
export function foundSize(found: Characteristic): number {
  return found.kind === 'measured' ? found.estimate.value : found.kind === 'beyond' ? found.bound.value : 0;
}

/** A pressure for an instruction or a limit: rounded, with unit. */
export function withUnit(si: number, as: ShownAs, units: DisplayUnits): string {
  const unit = shownUnit(as, units, si);
  const symbol = unit.symbol === '1' ? '' : ` ${unit.symbol}`;
  return `${figure(si, unit)}${symbol}`;
}

/** Reference written behind a pressure's unit. */
export function referenceOf(as: ShownAs): string {
  return as === 'gauge' || as === 'vacuum' || as === 'absolute' ? as : '';
}
