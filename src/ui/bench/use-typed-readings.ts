'use client';
import { useMemo } from 'react';
import { entryOf } from '@/core/dials/characteristic-entry';
import type { StepContext } from '@/core/procedure/step-context';
import type { TypedField, TypedValues } from '@/core/procedure/typed-entry';
import { analysisOf, evaluateMeasured, type JudgedStep, type StepEvaluation } from '@/core/judging/evaluate-unit';
import type { DecisionPolicy } from '@/core/vocabulary/verdict';
import { readFigure, type ReadFigure } from '@/core/quantities/read-figure';
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
}

export interface TypedReadings {
  readonly rows: readonly TypedRow[];
  readonly values: TypedValues;
  readonly type: (id: string, text: string) => void;
  /** Fills in what the stand-in’s gauge shows; the readings count as the stand-in’s from then on. */
  readonly fillFromStandIn: (texts: Readonly<Record<string, string>>) => void;
  readonly standIn: boolean;
  readonly clear: () => void;
  /** Judged with what has been typed so far; null before the first figure. */
  readonly result: StepEvaluation | null;
}

/** Kept beside the texts, so that a reload does not forget where they came from. */
const standInMark = ' stand-in';

/** Dial readings as they are typed: understood, questioned and judged at once; kept in this browser until recorded. */
export function useTypedReadings(
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
    const count = entry.fields(context, values).length;
    for (let at = 0; at < count; at++) {
      const field = entry.fields(context, values)[at];
      const text = texts[field.id] ?? '';
      const figure = readFigure(text, {
        unit: shownUnit(field.as, units),
        vacuum: field.as === 'vacuum',
        ambient: context.ambient.pressure,
      });
      const [low, high] = field.plausible;
      const questioned = figure.kind === 'figure' && (figure.value < low || figure.value > high);
      if (figure.kind === 'figure') values[field.id] = figure.value;
      rows.push({ field, text, read: figure, questioned });
    }
    const any = Object.keys(values).length > 0;
    const result = any
      ? evaluateMeasured(
          step,
          [analysisOf(step, { readings: values, standIn: texts[standInMark] !== undefined }, context)],
          context,
          policy,
        )
      : null;
    return { rows, values, result };
  }, [stored, step, context, units, policy]);
  return {
    ...read,
    type: (id, text) => store(JSON.stringify({ ...textsByName(stored), [id]: text })),
    fillFromStandIn: (texts) => store(JSON.stringify({ ...textsByName(stored), ...texts, [standInMark]: 'yes' })),
    standIn: textsByName(stored)[standInMark] !== undefined,
    clear: () => store('{}'),
  };
}
