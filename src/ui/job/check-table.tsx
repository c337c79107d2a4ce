import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import ListItem from '@mui/material/ListItem';
import { Bullets } from '@/ui/parts/bullets';
import { expandedUncertainty } from '@/core/instruments/uncertainty';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import { figure, referenceOf, shownUnit, foundSize, type DisplayUnits } from '@/core/wording/display';
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
    <Table className={styles.table}>
      <TableHead>
        <TableRow>
          <TableCell>What</TableCell>
          <TableCell>Reading ± U</TableCell>
          <TableCell>Limit</TableCell>
          <TableCell>Verdict</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {evaluation.characteristics.map((found) => {
          const check = evaluation.checks.find((each) => each.characteristic === found.id);
          const as = shownAs(found.id);
          const unit = shownUnit(as, units, foundSize(found));
          const symbol = [unit.symbol === '1' ? '' : unit.symbol, referenceOf(as)].filter(Boolean).join(' ');
          return (
            <TableRow key={found.id}>
              <TableCell>
                {characteristicTitle(found.id)}
                {found.kind === 'measured' && (
                  <details className={styles.budget}>
                    <summary>arithmetic</summary>
                    <Bullets>
                      {found.estimate.components
                        .filter((part) => part.standard > 0)
                        .map((part, at) => (
                          <ListItem key={`${part.source}${at}`}>
                            {sourceWords[part.source]}: u = {figure(part.standard + unit.offset, unit)}{' '}
                            {unit.symbol === '1' ? '' : unit.symbol}
                          </ListItem>
                        ))}
                      <ListItem>
                        U = 2·√Σu² = {figure(expandedUncertainty(found.estimate), unit)}{' '}
                        {unit.symbol === '1' ? '' : unit.symbol}
                      </ListItem>
                      {check && check.limit.standard > 0 && (
                        <ListItem>
                          the limit itself: u = {figure(check.limit.standard, unit)}{' '}
                          {unit.symbol === '1' ? '' : unit.symbol}
                        </ListItem>
                      )}
                    </Bullets>
                  </details>
                )}
              </TableCell>
              <TableCell>
                {found.kind === 'measured'
                  ? `${figure(found.estimate.value, unit, expandedUncertainty(found.estimate))} ${symbol}`
                  : '–'}
                {found.kind !== 'measured' && <small>{analysisProblemText(found.problem, units)}</small>}
              </TableCell>
              <TableCell>
                {check ? limitText(check, units, found) : 'no limit'}
                {check && <small>{limitSourceText(check.limit.source)}</small>}
              </TableCell>
              <TableCell>
                <VerdictMark verdict={check ? check.verdict.kind : 'recorded'} />
                {check?.verdict.kind === 'undecided' && found.kind === 'measured' && (
                  <small>{checkReason(check, units)}</small>
                )}
              </TableCell>
            </TableRow>
          );
        })}
      </TableBody>
    </Table>
  );
}
