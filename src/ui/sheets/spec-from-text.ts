import type { AnyKind } from '@/core/contract/kind';
import { typedNumber } from '@/ui/shell/typed-number';

export interface TypedSpec {
  readonly spec: Readonly<Record<string, unknown>>;
  /** Field → what is wrong with it. */
  readonly problems: Readonly<Record<string, string>>;
}

/** A sheet's spec from what was typed: empty fields are left out, figures may have a decimal comma. */
export function specFromText(kind: AnyKind, values: Readonly<Record<string, string>>): TypedSpec {
  const spec: Record<string, unknown> = {};
  const problems: Record<string, string> = {};
  for (const field of kind.sheet.fields) {
    const text = values[field.name]?.trim() ?? '';
    if (text === '') continue;
    if (field.choices || field.text) {
      spec[field.name] = text;
      continue;
    }
    const value = typedNumber(text);
    if (value === undefined || Number.isNaN(value)) problems[field.name] = `"${text}" is not a number`;
    else spec[field.name] = value;
  }
  const parsed = kind.sheet.schema.safeParse(spec);
  if (!parsed.success)
    for (const issue of parsed.error.issues) {
      const name = String(issue.path[0]);
      const empty = (values[name]?.trim() ?? '') === '';
      problems[name] ??= empty ? 'Measure this one too' : sentence(inWords(kind, issue.message));
    }
  return { spec, problems };
}

/** The schema speaks of fields by name; a form speaks of them by label. */
function inWords(kind: AnyKind, message: string): string {
  return kind.sheet.fields.reduce((text, field) => text.replaceAll(field.name, field.label.toLowerCase()), message);
}

function sentence(message: string): string {
  return message.charAt(0).toUpperCase() + message.slice(1);
}
