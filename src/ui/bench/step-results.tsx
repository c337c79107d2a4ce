import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import { expandedUncertainty } from '@/core/instruments/uncertainty';
import { remarksOf, type StepEvaluation } from '@/core/judging/evaluate-unit';
import { figure, referenceOf, shownUnit, foundSize, type DisplayUnits } from '@/core/wording/display';
import { shownAs } from '@/core/quantities/shown-as';
import { analysisProblemText } from '@/core/wording/problem-text';
import type { AnalysisProblem } from '@/core/vocabulary/analysis-problem';
import { characteristicTitle, type CharacteristicId } from '@/core/quantities/characteristics';
import { checkReason, limitText } from '@/core/wording/check-text';
import { VerdictMark, VerdictShape } from '@/ui/parts/verdict-mark';
import styles from './bench.module.css';

interface Props {
  readonly result: StepEvaluation;
  readonly units: DisplayUnits;
  readonly heading?: string;
  /** How a figure follows from what was typed. */
  readonly worked?: (id: CharacteristicId) => string;
}

/** Why nothing at all was measured, where it is one reason for everything: said once. */
function oneReason({ characteristics }: StepEvaluation): AnalysisProblem | null {
  const [first, ...others] = characteristics;
  if (others.length === 0 || first.kind !== 'absent') return null;
  const reason = JSON.stringify(first.problem);
  return others.every((each) => each.kind === 'absent' && JSON.stringify(each.problem) === reason)
    ? first.problem
    : null;
}

/** What a run found: every characteristic with U and limit, and what is missing for an undecided one. */
export function StepResults({ result, units, heading = 'This run', worked }: Props) {
  const notes = remarksOf(result);
  const reason = oneReason(result);
  return (
    <div className={styles.results}>
      <h2>
        {heading} <VerdictMark verdict={result.verdict} />
      </h2>
      {reason && <small>{analysisProblemText(reason, units)}</small>}
      <List>
        {result.characteristics.map((found) => {
          const check = result.checks.find((each) => each.characteristic === found.id);
          const as = shownAs(found.id);
          const unit = shownUnit(as, units, foundSize(found));
          return (
            <ListItem key={found.id}>
              <VerdictShape verdict={check ? check.verdict.kind : 'recorded'} />
              <div>
                <b>{characteristicTitle(found.id)}</b>
                {found.kind === 'measured' ? (
                  <code>
                    {figure(found.estimate.value, unit, expandedUncertainty(found.estimate))}{' '}
                    {unit.symbol === '1' ? '' : unit.symbol}
                    {referenceOf(as) && <em> {referenceOf(as)}</em>}
                  </code>
                ) : (
                  !reason && <small>{analysisProblemText(found.problem, units)}</small>
                )}
                {found.kind !== 'absent' && worked?.(found.id) && <small>{worked(found.id)}</small>}
                {check && (
                  <small>
                    {/* What was not measured has said why already. */}
                    {found.kind === 'measured' && check.verdict.kind === 'undecided'
                      ? checkReason(check, units)
                      : limitText(check, units, found)}
                  </small>
                )}
              </div>
            </ListItem>
          );
        })}
      </List>
      {notes.map((note) => (
        <small key={JSON.stringify(note)}>{analysisProblemText(note, units)}</small>
      ))}
    </div>
  );
}
