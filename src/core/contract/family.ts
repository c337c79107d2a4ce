import * as z from 'zod';
import type { BroughtRows } from '../procedure/brought-rows';
import type { AnyKind } from './kind';

/** Everything the product knows about one family of units. */
export interface Family {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  /** Sheet field that tells its kinds apart; null where all its units are built alike. */
  readonly toldBy: string | null;
  /** The first is meant where a sheet says nothing. */
  readonly kinds: readonly [AnyKind, ...AnyKind[]];
  /** Left out where it has no words of its own. */
  readonly rows?: BroughtRows;
}

/** The kind that a sheet is of; `spec` may be half typed. */
export function kindOf(family: Family, spec: unknown): AnyKind {
  if (family.toldBy === null) return family.kinds[0];
  const said = (spec as Readonly<Record<string, unknown>> | null)?.[family.toldBy];
  return family.kinds.find((kind) => kind.value === said) ?? family.kinds[0];
}

/** Format of a family's sheets, of whatever kind. */
export function schemaOf(family: Family): z.ZodType {
  const { kinds, toldBy } = family;
  if (toldBy === null) return kinds[0].sheet.schema as z.ZodType;
  return z.discriminatedUnion(
    toldBy,
    kinds.map((kind) => kind.sheet.schema as z.ZodObject) as unknown as [z.ZodObject, ...z.ZodObject[]],
  );
}
