import Papa from 'papaparse';
import type { AnyKind } from '../contract/kind';
import type { LookFindings } from '../judging/judge-step';
import { characteristicRow, findByOpenName, type CharacteristicId } from '../quantities/characteristics';
import { dialChannel } from '../dials/dial-readings';
import { entryOf } from '../dials/characteristic-entry';
import { plausibleRange } from '../dials/plausible-range';
import type { StepContext } from '../procedure/step-context';
import type { StepDefinition } from '../procedure/step-definition';
import type { TypedField, TypedValues } from '../procedure/typed-entry';
import { findUnit, toSi, unitOf, type MeasurementUnit } from '../quantities/measurement-unit';
import { openUnits, shownAs } from '../quantities/shown-as';
import { readFailed, readOk, type Read } from './read-result';

/** Typed characteristics (SI), what was read off dials (SI, by the fields of the step's entry) and look findings, by step. */
export interface Readings {
  readonly dials: ReadonlyMap<string, TypedValues>;
  readonly typed: ReadonlyMap<string, ReadonlyMap<CharacteristicId, number>>;
  readonly findings: ReadonlyMap<string, LookFindings>;
}

/**
 * Reads a readings table (CSV): `step,characteristic,value,unit` rows for typed values and `step,finding,value` rows
 * for looks, in one file or two, with a free `note`. In place of a characteristic a row may name a field of the step's dial
 * entry, or one of the rows of its table: `force#2`. Everything is checked against the family; a step is typed either way, not half and half.
 */
export function readReadings(text: string, file: string, kind: AnyKind, context: StepContext<unknown>): Read<Readings> {
  // Blank lines are kept, so that a row's place among the rows tells its line.
  const parsed = Papa.parse<Partial<Record<string, string>>>(text.replace(/^\uFEFF/, ''), { header: true });
  const fields = parsed.meta.fields ?? [];
  for (const needed of ['step', 'value'])
    if (!fields.includes(needed))
      return readFailed({ code: 'bad-field', file, field: needed, detail: 'the header has no such column' });
  const typed = new Map<string, Map<CharacteristicId, number>>();
  const dials = new Map<string, Record<string, number>>();
  const findings = new Map<string, Record<string, string>>();
  const seen = new Set<string>();
  /** Whether a row names what a row before it named. */
  const twice = (row: Partial<Record<string, string>>) => {
    const named = `${row.step} ${row.characteristic ?? ''} ${row.finding ?? ''}`;
    const before = seen.has(named);
    seen.add(named);
    return before;
  };
  for (const [at, row] of parsed.data.entries()) {
    if (Object.values(row).every((cell) => !cell?.trim())) continue;
    const place = `line ${at + 2}`;
    const bad = (field: string, detail: string) =>
      readFailed<Readings>({ code: 'bad-field', file, field: `${place}, ${field}`, detail });
    const step = kind.steps.find((each) => each.id === row.step);
    if (!step)
      return bad('step', `"${row.step ?? ''}" is not known; known: ${kind.steps.map((each) => each.id).join(', ')}`);
    if (row.characteristic) {
      const id = findByOpenName(step.characteristics, row.characteristic);
      const field = fieldOf(step, row.characteristic, dials.get(step.id) ?? {}, context);
      const asField =
        field !== undefined && (id === undefined || (step.kind !== 'look' && step.feeds.dials !== undefined));
      if (id === undefined && !field) return bad('characteristic', `${step.id} has no "${row.characteristic}"`);
      if (asField ? typed.has(step.id) : dials.has(step.id))
        return bad('characteristic', `${step.id} is typed by its dials or by what they come to, not half and half`);
      const shown = (row.value ?? '').trim();
      const choice = asField && field?.choices ? choiceOf(field.choices, shown) : undefined;
      if (choice === -1) return bad('value', `must be one of ${field?.choices?.join(', ')}`);
      const value = choice ?? (plainNumber.test(shown) ? Number(shown) : Number.NaN);
      if (!Number.isFinite(value)) return bad('value', `"${shown.slice(0, 40)}" is not a number`);
      const fileUnit = asField && field ? unitOf(openUnits[field.as]) : unitOf(characteristicRow(id!).unit);
      const unit = row.unit ? findUnit(row.unit) : fileUnit;
      if (!unit || !fits(unit, fileUnit)) return bad('unit', `"${row.unit}" does not fit ${row.characteristic}`);
      const si = choice ?? toSi(value, unit);
      const range = plausibleOf(step, asField ? field : undefined, id, context);
      if (choice === undefined && range && !(si >= range[0] && si <= range[1]) && row.confirmed !== 'yes')
        return bad('value', `${shown} ${unit.symbol} is hardly so: mend it, or say "yes" in a column "confirmed"`);
      if (twice(row)) return bad('characteristic', 'stands in the file twice');
      if (asField && field) dials.set(step.id, { ...dials.get(step.id), [field.id]: si });
      else if (id !== undefined) typed.set(step.id, (typed.get(step.id) ?? new Map()).set(id, si));
    } else if (step.kind === 'look') {
      const point = step.feeds.look.points.find((each) => each.id === row.finding);
      if (!point) return bad('finding', `${step.id} has no point "${row.finding ?? ''}"`);
      const option = step.feeds.look.options.find((each) => each.id === row.value);
      if (!option) return bad('value', `must be one of ${step.feeds.look.options.map((each) => each.id).join(', ')}`);
      if (twice(row)) return bad('finding', 'stands in the file twice');
      findings.set(step.id, { ...findings.get(step.id), [point.id]: option.id });
    } else return bad('characteristic', `${step.id} is measured: name one of ${step.characteristics.join(', ')}`);
  }
  return readOk({ typed, dials, findings });
}

/** A figure as files write it: digits with a point, a power of ten of two figures at most. */
const plainNumber = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d{1,2})?$/;

/** What anybody would believe of a field or a characteristic without asking, SI; null where there is no saying. */
function plausibleOf(
  step: StepDefinition<unknown>,
  field: TypedField | undefined,
  id: CharacteristicId | undefined,
  context: StepContext<unknown>,
): readonly [number, number] | null {
  if (step.kind === 'look') return null;
  if (field) return field.plausible;
  return id === undefined ? null : plausibleRange(shownAs(id), dialChannel(step, id), context);
}

/** A field of a step's dial entry by its id, a row of its table (`force#7`) included; undefined where it has none of that name. */
function fieldOf(
  step: StepDefinition<unknown>,
  id: string,
  read: TypedValues,
  context: StepContext<unknown>,
): TypedField | undefined {
  if (step.kind === 'look') return undefined;
  return entryOf(step)
    .fields(context, { ...read, [id]: 0 })
    .find((field) => field.id === id);
}

/** Place of a choice by its words or by its place; −1 where it is none of them. */
function choiceOf(choices: readonly string[], shown: string): number {
  const byWords = choices.findIndex((choice) => choice.toLowerCase() === shown.toLowerCase());
  if (byWords >= 0) return byWords;
  return /^\d+$/.test(shown) && Number(shown) < choices.length ? Number(shown) : -1;
}

function fits(unit: MeasurementUnit, fileUnit: MeasurementUnit): boolean {
  return unit.dimension === fileUnit.dimension || (fileUnit.dimension === 'count' && unit.symbol === '1');
}
