import { planWiring, type Wiring } from '@/core/calculators/wire-and-fuse';
import type { SheetToWire } from '@/server/shop/library';
import { wrongFigure, type AskedFigure } from '../parts/asked-figures';
import { typedNumber } from '../shell/typed-number';

/** The form as it is typed. */
export interface WiringTexts {
  readonly sheet: string;
  readonly current: string;
  readonly average: string;
  readonly length: string;
  readonly drop: string;
  readonly feedDropMax: string;
  readonly groundDropMax: string;
  readonly temperature: string;
}

export const emptyWiring: WiringTexts = {
  sheet: '',
  current: '',
  average: '',
  length: '',
  drop: '0.5',
  feedDropMax: '0.5',
  groundDropMax: '0.2',
  temperature: '60',
};

/** Fields in the order that they are known; figures outside their range are no wiring of a vehicle. */
export const wiringFields: Readonly<Record<Exclude<keyof WiringTexts, 'sheet'>, AskedFigure>> = {
  current: { title: 'Peak current', unit: 'A', help: 'What the unit draws at most', low: 0.1, high: 400 },
  average: {
    title: 'Average current',
    unit: 'A',
    help: 'Empty: 0.7 of the peak is taken',
    low: 0.05,
    high: 400,
    optional: true,
  },
  length: {
    title: 'Length, one way',
    unit: 'm',
    help: 'From the battery to the unit, along the wire',
    low: 0.1,
    high: 50,
  },
  drop: { title: 'Drop of the loop', unit: 'V', help: 'Half on the feed, half on the ground', low: 0.01, high: 10 },
  feedDropMax: { title: 'Feed alone at most', unit: 'V', help: 'From the sheet', low: 0.01, high: 10 },
  groundDropMax: { title: 'Ground alone at most', unit: 'V', help: 'From the sheet', low: 0.01, high: 10 },
  temperature: { title: 'Hottest place', unit: '°C', help: 'Beside an engine 60 and more', low: -40, high: 150 },
};

export type WiringField = keyof typeof wiringFields;

/** What the form comes to; null while something is missing or wrong. */
export function wiringOf(texts: WiringTexts): Wiring | null {
  const fields = Object.keys(wiringFields) as WiringField[];
  if (fields.some((field) => wrongFigure(wiringFields[field], texts[field]) !== null)) return null;
  const value = (field: WiringField) => typedNumber(texts[field])!;
  return planWiring({
    current: value('current'),
    average: typedNumber(texts.average) ?? null,
    length: value('length'),
    drop: value('drop'),
    feedDropMax: value('feedDropMax'),
    groundDropMax: value('groundDropMax'),
    temperatureC: value('temperature'),
  });
}

/** The form filled from a sheet; what only the vehicle knows stays as it is. */
export function filledFrom(sheet: SheetToWire, texts: WiringTexts): WiringTexts {
  return {
    ...texts,
    sheet: sheet.id,
    current: String(sheet.current),
    drop: String(sheet.feedDropMax),
    feedDropMax: String(sheet.feedDropMax),
    groundDropMax: String(sheet.groundDropMax),
  };
}
