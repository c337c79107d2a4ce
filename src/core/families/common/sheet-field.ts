import { z } from 'zod';
import type { SheetField } from '../family';

/** A figure of a sheet above zero and at most `most`. */
export const positive = (most: number) => z.number().positive().max(most);

export const optionalPositive = (most: number) => positive(most).optional();

type More = Partial<Pick<SheetField, 'help' | 'required' | 'choices'>>;

/** Makes the form fields of one sheet: names are checked against its spec. */
export function sheetFields<Spec>() {
  return (
    name: keyof Spec & string,
    label: string,
    unit: string,
    group: SheetField['group'],
    more: More = {},
  ): SheetField => ({ help: '', required: false, ...more, name, label, unit, group });
}
