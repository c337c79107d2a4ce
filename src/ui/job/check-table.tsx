import { expandedUncertainty } from '@/core/instruments/uncertainty';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import { figure, referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import { shownAs } from '@/core/quantities/shown-as';
import { analysisProblemText } from '@/core/wording/problem-text';
import { characteristicTitle } from '@/core/quantities/characteristics';
import { checkReason, limitSourceText, limitText } from '@/core/wording/check-text';
import { VerdictMark } from '@/ui/parts/verdict-mark';
import { sourceWords } from './source-words';
import styles from './job.module.css';

/** Every characteristic of a step with its limit; a verdict opens to its arithmetic. */
export function CheckTable({
  evaluation,
  units,
}: {
  readonly evaluation: StepEvaluation;
  readonly units: DisplayUnits;
}) {
  return (
    <table className={styles.table}>
      <thead>
        <tr>
          <th>What</th>
          <th>Reading ± U</th>
          <th>Limit</th>
          <th>Verdict</th>
        </tr>
      </thead>
      <tbody>
        {evaluation.characteristics.map((found) => {
          const check = evaluation.checks.find((each) => each.characteristic === found.id);
          const as = shownAs(found.id);
          const unit = shownUnit(as, units);
          const symbol = [unit.symbol === '1' ? '' : unit.symbol, referenceOf(as)].filter(Boolean).join(' ');
          return (
            <tr key={found.id}>
              <td>
                {characteristicTitle(found.id)}
                {found.kind === 'measured' && (
                  <details className={styles.budget}>
                    <summary>arithmetic</summary>
                    <ul>
                      {found.estimate.components
                        .filter((part) => part.standard > 0)
                        .map((part, at) => (
                          <li key={`${part.source}${at}`}>
                            {sourceWords[part.source]}: u = {figure(part.standard + unit.offset, unit)}{' '}
                            {unit.symbol === '1' ? '' : unit.symbol}
                          </li>
                        ))}
                      <li>
                        U = 2·√Σu² = {figure(expandedUncertainty(found.estimate), unit)}{' '}
                        {unit.symbol === '1' ? '' : unit.symbol}
                      </li>
                      {check && check.limit.standard > 0 && (
                        <li>
                          the limit itself: u = {figure(check.limit.standard, unit)}{' '}
                          {unit.symbol === '1' ? '' : unit.symbol}
                        </li>
                      )}
                    </ul>
                  </details>
                )}
              </td>
              <td>
                {found.kind === 'measured'
                  ? `${figure(found.estimate.value, unit, expandedUncertainty(found.estimate))} ${symbol}`
                  : '–'}
                {found.kind !== 'measured' && <small>{analysisProblemText(found.problem, units)}</small>}
              </td>
              <td>
                {check ? limitText(check, units) : 'no limit'}
                {check && <small>{limitSourceText(check.limit.source)}</small>}
              </td>
              <td>
                <VerdictMark verdict={check ? check.verdict.kind : 'recorded'} />
                {check?.verdict.kind === 'undecided' && found.kind === 'measured' && (
                  <small>{checkReason(check, units)}</small>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
