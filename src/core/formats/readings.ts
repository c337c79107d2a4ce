import Papa from 'papaparse';
import type { AnyFamily } from '../contract/family';
import type { LookFindings } from '../judging/judge-step';
import { characteristicUnits, findByOpenName, type CharacteristicId } from '../quantities/characteristics';
import { findUnit, toSi, unitOf } from '../quantities/measurement-unit';
import { readFailed, readOk, type Read } from './read-result';

/** Typed characteristics (SI) and look findings by step. */
export interface Readings {
  readonly typed: ReadonlyMap<string, ReadonlyMap<CharacteristicId, number>>;
  readonly findings: ReadonlyMap<string, LookFindings>;
}

/**
 * Reads a readings table (CSV): `step,characteristic,value,unit` rows for typed values and `step,finding,value` rows
 * for looks, in one file or two, with a free `note`. Everything is checked against the family.
 */
export function readReadings(text: string, file: string, family: AnyFamily): Read<Readings> {
  // Blank lines are kept, so that a row's place among the rows tells its line.
  const parsed = Papa.parse<Partial<Record<string, string>>>(text.replace(/^\uFEFF/, ''), { header: true });
  const fields = parsed.meta.fields ?? [];
  for (const needed of ['step', 'value'])
    if (!fields.includes(needed))
      return readFailed({ code: 'bad-field', file, field: needed, detail: 'the header has no such column' });
  const typed = new Map<string, Map<CharacteristicId, number>>();
  const findings = new Map<string, Record<string, string>>();
  for (const [at, row] of parsed.data.entries()) {
    if (Object.values(row).every((cell) => !cell?.trim())) continue;
    const place = `line ${at + 2}`;
    const bad = (field: string, detail: string) =>
      readFailed<Readings>({ code: 'bad-field', file, field: `${place}, ${field}`, detail });
    const step = family.steps.find((each) => each.id === row.step);
    if (!step)
      return bad('step', `"${row.step ?? ''}" is not known; known: ${family.steps.map((each) => each.id).join(', ')}`);
    if (row.characteristic) {
      const id = findByOpenName(step.characteristics, row.characteristic);
      if (id === undefined) return bad('characteristic', `${step.id} has no "${row.characteristic}"`);
      const shown = (row.value ?? '').trim();
      const value = Number(shown);
      if (shown === '' || !Number.isFinite(value)) return bad('value', `"${shown}" is not a number`);
      const fileUnit = unitOf(characteristicUnits[id]);
      const unit = row.unit ? findUnit(row.unit) : fileUnit;
      if (!unit || unit.dimension !== fileUnit.dimension) return bad('unit', `"${row.unit}" does not fit ${id}`);
      typed.set(step.id, (typed.get(step.id) ?? new Map()).set(id, toSi(value, unit)));
    } else if (step.kind === 'look') {
      const point = step.points.find((each) => each.id === row.finding);
      if (!point) return bad('finding', `${step.id} has no point "${row.finding ?? ''}"`);
      const option = step.options.find((each) => each.id === row.value);
      if (!option) return bad('value', `must be one of ${step.options.map((each) => each.id).join(', ')}`);
      findings.set(step.id, { ...findings.get(step.id), [point.id]: option.id });
    } else return bad('characteristic', `${step.id} is measured: name one of ${step.characteristics.join(', ')}`);
  }
  return readOk({ typed, findings });
}
