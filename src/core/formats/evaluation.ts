import type { Conclusion } from '../contract/plan';
import type { Ledger } from '../diagnosis/ledger';
import { expandedUncertainty } from '../instruments/uncertainty';
import { remarksOf, type UnitEvaluation } from '../judging/evaluate-unit';
import { characteristicRow, openName, type CharacteristicId } from '../quantities/characteristics';
import { unitOf } from '../quantities/measurement-unit';
import { displayUnits } from '../wording/display';
import { analysisProblemText } from '../wording/problem-text';
import { checkReason } from '../wording/check-text';

import { writeDiagnosis, writeNextTest } from './ledger';

const significant = (value: number) => Number(value.toPrecision(8));

function inFileUnit(id: CharacteristicId, si: number | null): number | null {
  return si === null ? null : significant(si / unitOf(characteristicRow(id).unit).factor);
}

/** An evaluation as the open file writes it; sentences in kPa. Where an inquiry has ended is said too, and what the ledger says where there is one. */
export function writeEvaluation(
  evaluation: UnitEvaluation,
  conclusion: Conclusion | null = null,
  ledger: Ledger | null = null,
): object {
  const units = displayUnits('kpa');
  return {
    format: 'hard-pedal/evaluation',
    version: 1,
    verdict: evaluation.verdict,
    steps: evaluation.steps.map((step) => ({
      step: step.step,
      verdict: step.verdict,
      characteristics: Object.fromEntries(
        step.characteristics.flatMap((each) =>
          each.kind === 'measured'
            ? [
                [
                  openName(each.id),
                  {
                    value: inFileUnit(each.id, each.estimate.value),
                    unit: characteristicRow(each.id).unit,
                    expandedUncertainty: inFileUnit(each.id, expandedUncertainty(each.estimate)),
                  },
                ],
              ]
            : [],
        ),
      ),
      notMeasured: Object.fromEntries(
        step.characteristics.flatMap((each) =>
          each.kind === 'measured' ? [] : [[openName(each.id), analysisProblemText(each.problem, units)]],
        ),
      ),
      checks: step.checks.map((check) => ({
        characteristic: openName(check.characteristic),
        low: inFileUnit(check.characteristic, check.limit.low),
        high: inFileUnit(check.characteristic, check.limit.high),
        verdict: check.verdict.kind,
        ...(check.verdict.kind === 'pass' && check.verdict.marginal ? { marginal: true } : {}),
        reason: checkReason(check, units),
      })),
      notes: remarksOf(step).map((remark) => analysisProblemText(remark, units)),
    })),
    ...(conclusion ? { conclusion: { id: conclusion.id, title: conclusion.title } } : {}),
    diagnosis: ledger ? writeDiagnosis(ledger) : [],
    nextTest: ledger ? writeNextTest(ledger.next) : null,
  };
}
