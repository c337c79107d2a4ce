import type { FieldPath, FieldValues, UseFormReturn } from 'react-hook-form';
import { Refused } from './request';

/**
 * Shows a refusal in a form: each wrong field says what is wrong with it, and the first of them has the keys. Returns what there is to say
 * of it as a whole. `named` is what a field of the request is called in the form.
 */
export function showRefusal<T extends FieldValues>(
  form: Pick<UseFormReturn<T>, 'setError' | 'setFocus'>,
  error: unknown,
  named: (field: string) => string = (field) => field,
): string {
  const refused = error instanceof Refused ? error : new Refused(String(error), {});
  const fields = Object.entries(refused.fields).map(
    ([field, message]) => [named(field) as FieldPath<T>, message] as const,
  );
  for (const [field, message] of fields) form.setError(field, { message });
  if (fields.length > 0) form.setFocus(fields[0][0]);
  return refused.message;
}
