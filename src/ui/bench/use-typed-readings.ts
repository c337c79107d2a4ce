'use client';
import { useMemo } from 'react';
import { entryOf } from '@/core/dials/characteristic-entry';
import type { AnyKind } from '@/core/contract/kind';
import type { StepContext } from '@/core/procedure/step-context';
import type { TypedField, TypedValues } from '@/core/procedure/typed-entry';
import { evaluateStep, type JudgedStep, type StepEvaluation } from '@/core/judging/evaluate-unit';
import type { DecisionPolicy } from '@/core/vocabulary/verdict';
import { isQuestioned } from '@/core/dials/question-figure';
import { findUnit } from '@/core/quantities/measurement-unit';
import { readFigure, type FigureExpected, type ReadFigure } from '@/core/quantities/read-figure';
import { shownUnit, type DisplayUnits } from '@/core/wording/display';
import { textsByName } from '@/ui/shell/browser-store';
import { useStored } from '@/ui/shell/shop-context';

/** One field with what was typed into it and how that was understood. */
export interface TypedRow {
  readonly field: TypedField;
  readonly text: string;
  readonly read: ReadFigure;
  /** A figure that nobody would believe without asking. */
  readonly questioned: boolean;
  /** Questioned, looked at again and found to be so. */
  readonly confirmed: boolean;
}

export interface TypedReadings {
  readonly rows: readonly TypedRow[];
  readonly values: TypedValues;
  readonly type: (id: string, text: string) => void;
  /** Says of a questioned figure that it is so. */
  readonly confirm: (id: string) => void;
  /** Fields that were confirmed. */
  readonly confirmed: readonly string[];
  /** Fills in what the stand-in’s gauge shows; the readings count as the stand-in’s from then on. */
  readonly fillFromStandIn: (texts: Readonly<Record<string, string>>) => void;
  readonly standIn: boolean;
  readonly clear: () => void;
  /** Judged with what has been typed so far; null before the first figure. */
  readonly result: StepEvaluation | null;
}

/** Kept beside a text: the unit that was shown when it was typed, and the text that was looked at again. */
const unitMark = (id: string) => `${id} unit`;
const confirmMark = (id: string) => `${id} confirmed`;

/** What a figure of this kind is read against. */
function typedReference(as: TypedField['as']): FigureExpected['reference'] {
  return as === 'vacuum' || as === 'gauge' || as === 'absolute' ? as : 'none';
}

/** Kept beside the texts, so that a reload does not forget where they came from. */
const standInMark = ' stand-in';

/** Dial readings as they are typed: understood, questioned and judged at once; kept in this browser until recorded. */
export function useTypedReadings(
  kind: AnyKind,
  step: JudgedStep,
  context: StepContext<unknown>,
  how: { readonly draftKey: string; readonly units: DisplayUnits; readonly policy: DecisionPolicy },
): TypedReadings {
  const { draftKey, units, policy } = how;
  const [stored, store] = useStored(draftKey, '{}');
  const read = useMemo(() => {
    const texts = textsByName(stored);
    const entry = entryOf(step);
    const values: Record<string, number> = {};
    // What one field expects may depend on those before it, so they are read in order.
    const rows: TypedRow[] = [];
    const begun = Object.keys(texts).filter((id) => texts[id] !== '');
    for (let at = 0; ; at++) {
      const field = entry.fields(context, values, begun).at(at);
      if (!field) break;
      const text = texts[field.id] ?? '';
      // A figure keeps the unit that was shown when it was typed, whatever is shown by now.
      const shown = shownUnit(field.as, units);
      const typedIn = findUnit(texts[unitMark(field.id)] ?? '');
      const figure = readFigure(text, {
        unit: typedIn?.dimension === shown.dimension ? typedIn : shown,
        reference: typedReference(field.as),
        ambient: context.ambient.pressure,
      });
      const questioned = figure.kind === 'figure' && isQuestioned(field, figure.value);
      const confirmed = questioned && texts[confirmMark(field.id)] === text;
      if (figure.kind === 'figure') values[field.id] = figure.value;
      rows.push({ field, text, read: figure, questioned: questioned && !confirmed, confirmed });
    }
    const any = Object.keys(values).length > 0;
    const result = any
      ? evaluateStep(kind, step, [{ readings: values, standIn: texts[standInMark] !== undefined }], { context, policy })
      : null;
    return { rows, values, result };
  }, [stored, kind, step, context, units, policy]);
  return {
    ...read,
    type: (id, text) => {
      const field = read.rows.find((row) => row.field.id === id)?.field;
      const texts = textsByName(stored);
      // The unit of the first sign typed stands until the field is empty again.
      const unit = texts[id] ? texts[unitMark(id)] : undefined;
      const shown = field ? shownUnit(field.as, units).symbol : '';
      store(JSON.stringify({ ...texts, [id]: text, [unitMark(id)]: unit ?? shown }));
    },
    confirm: (id) => {
      const texts = textsByName(stored);
      store(JSON.stringify({ ...texts, [confirmMark(id)]: texts[id] ?? '' }));
    },
    confirmed: read.rows.filter((row) => row.confirmed).map((row) => row.field.id),
    fillFromStandIn: (texts) => store(JSON.stringify({ ...textsByName(stored), ...texts, [standInMark]: 'yes' })),
    standIn: textsByName(stored)[standInMark] !== undefined,
    clear: () => store('{}'),
  };
}
