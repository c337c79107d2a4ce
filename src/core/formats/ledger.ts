import type { AnyKind } from '../contract/kind';
import type { SeverityFit } from '../diagnosis/fit-severity';
import { hypothesisId } from '../diagnosis/hypothesis';
import type { FaultExtent, Ledger, LedgerRow } from '../diagnosis/ledger';
import { beginsWith, type NextTest, type Worth } from '../diagnosis/next-test';
import type { Weighed } from '../diagnosis/rank';
import type { StepEvaluation } from '../judging/evaluate-unit';
import { fromSi, unitOf } from '../quantities/measurement-unit';
import { openUnits } from '../quantities/shown-as';
import { displayUnits } from '../wording/display';
import { findingText, hypothesisTitle, nextTestText } from '../wording/ledger-text';

const significant = (value: number) => Number(value.toPrecision(4));

/** Rows below this probability are left out of an evaluation; `hp diagnose --explain` has them all. */
const worthNaming = 0.005;

/** A fault's figure in the unit of open files. */
function writeExtent({ fault, title, as, tells, value, expanded, sound }: FaultExtent): object {
  const unit = unitOf(openUnits[as]);
  const said = (si: number) => significant(fromSi(si, unit));
  return {
    fault,
    figure: title,
    ...(tells === 'about' ? {} : { tells }),
    value: said(value),
    unit: unit.symbol,
    ...(tells === 'about' ? { expandedUncertainty: significant(expanded / unit.factor) } : {}),
    sound: said(sound),
  };
}

function writeRow(row: LedgerRow): object {
  return {
    fault: row.id,
    probability: significant(row.probability),
    ...(row.extents.length > 0 ? { severity: row.extents.map(writeExtent) } : {}),
  };
}

/** What an evaluation says of a unit's faults: likeliest first. */
export function writeDiagnosis(ledger: Ledger): readonly object[] {
  return ledger.rows.filter((row) => row.probability >= worthNaming).map(writeRow);
}

/** The next best test as the open file writes it; null where none is. */
export function writeNextTest(next: NextTest): object | null {
  if (next.kind === 'finish-plan') return { step: next.step, minutes: next.minutes };
  if (next.kind !== 'test') return null;
  const { step, before, minutes, gain, between } = next.worth;
  return {
    step: beginsWith(next.worth),
    ...(before.length === 0 ? {} : { opens: step }),
    minutes,
    gainBits: significant(gain),
    between: between.map(hypothesisId),
  };
}

const writeWorth = ({ step, before, minutes, gain }: Worth) => ({ step, before, minutes, gainBits: significant(gain) });

/** What a row's severity comes to by the unit's own model, and the steps that it was fitted to. */
function fittedTo({ id }: LedgerRow, fits: readonly SeverityFit[]): object {
  const fit = fits.find((each) => each.fault === id);
  return fit?.extent ? { fitted: { ...writeExtent(fit.extent), lies: fit.lies, steps: fit.steps } } : {};
}

/** The whole ledger with what every finding says for and against each row, decibans, and the severities that were fitted; sentences in kPa. */
export function writeLedger(
  kind: AnyKind,
  ledger: Ledger,
  steps: readonly StepEvaluation[],
  fits: readonly SeverityFit[],
): object {
  const units = displayUnits('kpa');
  const writeFinding = ({ finding, decibans }: Weighed) => ({
    ...finding,
    ...findingText(kind, finding, steps, units),
    decibans: Number(decibans.toFixed(1)),
  });
  const { next } = ledger;
  return {
    format: 'hard-pedal/ledger',
    version: 1,
    rows: ledger.rows.map((row) => ({
      ...writeRow(row),
      title: hypothesisTitle(kind, row.hypothesis),
      ...fittedTo(row, fits),
      findings: row.weighed.map(writeFinding),
    })),
    pairsTried: ledger.pairsTried,
    unseen: ledger.unseen,
    borneOut: ledger.borneOut,
    next: {
      kind: next.kind,
      ...nextTestText(kind, next, ledger),
      ...(next.kind === 'test' ? { test: writeNextTest(next), others: next.others.map(writeWorth) } : {}),
      ...(next.kind === 'open-it' ? { parts: next.parts, between: next.between.map(hypothesisId) } : {}),
    },
  };
}
