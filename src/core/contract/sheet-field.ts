import * as z from 'zod';

export interface SheetField {
  readonly name: string;
  readonly label: string;
  readonly unit: string;
  readonly group: 'identity' | 'size' | 'behaviour' | 'tolerance' | 'limit';
  readonly help: string;
  readonly required: boolean;
  /** Free text: where a figure stands. */
  readonly text?: true;
  /** What the field may say, where it is a word and not a figure. */
  readonly choices?: readonly { readonly value: string; readonly title: string }[];
}

/** A figure of a sheet above zero and at most `most`. */
export const positive = (most: number) => z.number().positive().max(most);

export const optionalPositive = (most: number) => positive(most).optional();

type More = Partial<Pick<SheetField, 'help' | 'required' | 'choices' | 'text'>>;

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
