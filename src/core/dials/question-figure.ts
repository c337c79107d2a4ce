import type { TypedField, TypedValues } from '../procedure/typed-entry';

/** Whether nobody would believe a figure (SI) of a field without asking: it lies outside what is plausible there. */
export function isQuestioned({ plausible: [low, high], choices }: TypedField, value: number): boolean {
  return choices === undefined && !(value >= low && value <= high);
}

/**
 * Fields whose figures are questioned and were not confirmed. One rule for every way in: such a figure is not kept until it is
 * confirmed or mended.
 */
export function questionedFields(
  fields: readonly TypedField[],
  values: TypedValues,
  confirmed: readonly string[],
): readonly TypedField[] {
  return fields.filter(
    (field) => values[field.id] !== undefined && isQuestioned(field, values[field.id]) && !confirmed.includes(field.id),
  );
}
