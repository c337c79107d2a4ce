import * as z from 'zod';
import { families, findFamily } from '../families/registry';
import { type Family, kindOf, schemaOf } from '../contract/family';
import type { AnyKind } from '../contract/kind';
import { readFailed, readOk, type Read } from './read-result';
import type { ReadProblem } from '../vocabulary/read-problem';

export const unitSheetFormat = 'hard-pedal/unit';

const envelope = z.strictObject({
  format: z.literal(unitSheetFormat),
  version: z.literal(1),
  family: z.string(),
  name: z.string().trim().min(1).max(120),
  spec: z.record(z.string(), z.unknown()),
});

/** A checked unit sheet with its family and SI form. */
export interface UnitSheet {
  readonly kind: AnyKind;
  readonly name: string;
  /** The sheet's fields with defaults filled in. */
  readonly spec: unknown;
  /** What `family.prepare` makes of them. */
  readonly unit: unknown;
}

/** Turns schema issues into problems named by field. */
export function fieldProblems(file: string, error: z.ZodError, prefix: readonly string[] = []): ReadProblem[] {
  return error.issues.map((issue) => {
    const keys = issue.code === 'unrecognized_keys' ? [issue.keys[0]] : [];
    const field = [...prefix, ...issue.path.map(String), ...keys].join('.') || '(whole file)';
    return { code: 'bad-field', file, field, detail: issue.message };
  });
}

/** Text of a JSON file as data. */
export function parseJson(text: string, file: string): Read<unknown> {
  try {
    return readOk(JSON.parse(text.replace(/^\uFEFF/, '')) as unknown);
  } catch (error) {
    return readFailed({ code: 'not-json', file, detail: error instanceof Error ? error.message : String(error) });
  }
}

/** Checks a sheet's spec for one kind and prepares its SI form. */
export function checkKind(kind: AnyKind, name: string, spec: unknown, file: string): Read<UnitSheet> {
  const parsed = kind.sheet.schema.safeParse(spec);
  if (!parsed.success) return readFailed(...fieldProblems(file, parsed.error, ['spec']));
  const frozen: unknown = Object.freeze(parsed.data);
  return readOk({ kind, name, spec: frozen, unit: kind.sheet.prepare(frozen) as unknown });
}

/** Checks a sheet's spec for the kind of a family that it says it is of. */
export function checkSpec(family: Family, name: string, spec: unknown, file: string): Read<UnitSheet> {
  if (family.toldBy === null) return checkKind(family.kinds[0], name, spec, file);
  const parsed = schemaOf(family).safeParse(spec);
  if (!parsed.success) return readFailed(...fieldProblems(file, parsed.error, ['spec']));
  return checkKind(kindOf(family, parsed.data), name, parsed.data, file);
}

/** Reads a unit sheet from JSON text. */
export function readUnitSheet(text: string, file: string): Read<UnitSheet> {
  const json = parseJson(text, file);
  if (!json.ok) return json;
  const parsed = envelope.safeParse(json.value);
  if (!parsed.success) return readFailed(...fieldProblems(file, parsed.error));
  const family = findFamily(parsed.data.family);
  if (!family)
    return readFailed({
      code: 'unknown-family',
      file,
      family: parsed.data.family,
      known: families.map((each) => each.id),
    });
  return checkSpec(family, parsed.data.name, parsed.data.spec, file);
}

/** A unit sheet as the open file writes it. */
export function writeUnitSheet(family: string, name: string, spec: unknown): object {
  return { format: unitSheetFormat, version: 1, family, name, spec };
}

/** JSON Schema (draft 2020-12) of a family's unit sheet. */
export function unitSheetJsonSchema(family: Family): object {
  const spec = z.toJSONSchema(schemaOf(family), { io: 'input' });
  delete (spec as Record<string, unknown>).$schema;
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: `${family.title}: unit sheet`,
    type: 'object',
    additionalProperties: false,
    required: ['format', 'version', 'family', 'name', 'spec'],
    properties: {
      format: { const: unitSheetFormat },
      version: { const: 1 },
      family: { const: family.id },
      name: { type: 'string', minLength: 1, maxLength: 120 },
      spec,
    },
  };
}
