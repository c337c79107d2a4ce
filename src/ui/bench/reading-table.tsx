import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import { ReadingInput, ReadingQuestion } from './reading-input';
import { asked, expectedText, problemText, readWith, understood } from './reading-words';
import type { TypedReadings, TypedRow } from './use-typed-readings';
import styles from './bench.module.css';

interface Props {
  readonly rows: readonly TypedRow[];
  readonly typed: TypedReadings;
  readonly units: DisplayUnits;
  /** Where a sound unit's readings lie is seen in a picture beside it. */
  readonly drawn: boolean;
  readonly hold: (id: string, element: HTMLInputElement | null) => void;
  readonly onEnter: (row: TypedRow) => void;
}

/** Fields of a table, row by row. */
function inLines(rows: readonly TypedRow[]): readonly (readonly TypedRow[])[] {
  const lines = new Map<number, TypedRow[]>();
  for (const row of rows) {
    const at = row.field.row?.at ?? 0;
    lines.set(at, [...(lines.get(at) ?? []), row]);
  }
  return [...lines.values()];
}

/** Readings of a kind, one line each; the last is always empty, so that the table grows as it is filled. */
export function ReadingTable({ rows, typed, units, drawn, hold, onEnter }: Props) {
  const lines = inLines(rows);
  const [first] = lines;
  return (
    <Table className={styles.readings} aria-label="Readings, row by row" size="small">
      <TableHead>
        <TableRow>
          <TableCell>Row</TableCell>
          {first.map((row) => (
            <TableCell key={row.field.id}>
              {row.field.row?.heading}
              <small>{headingOf(row, units)}</small>
            </TableCell>
          ))}
          <TableCell component="td" />
        </TableRow>
      </TableHead>
      <TableBody>
        {lines.map((line) => {
          const at = line[0].field.row?.at ?? 0;
          return (
            <TableRow key={at}>
              <TableCell component="th" scope="row">
                {at}
              </TableCell>
              {line.map((row) => (
                <TableCell key={row.field.id}>
                  <ReadingInput
                    row={row}
                    units={units}
                    label={row.field.title}
                    hold={(element) => hold(row.field.id, element)}
                    type={(text) => typed.type(row.field.id, text)}
                    onEnter={() => onEnter(row)}
                  />
                </TableCell>
              ))}
              <TableCell>
                {line.map((row) => (
                  <span key={row.field.id} id={`said-${row.field.id}`} className={styles.said}>
                    {saidOf(row, units)}
                    <ReadingQuestion
                      row={row}
                      type={(text) => typed.type(row.field.id, text)}
                      confirm={() => typed.confirm(row.field.id)}
                    />
                  </span>
                ))}
                {!drawn && (
                  <span className={styles.expected}>
                    {line
                      .map((row) => expectedText(row, units))
                      .filter(Boolean)
                      .join(' · ')}
                  </span>
                )}
              </TableCell>
            </TableRow>
          );
        })}
      </TableBody>
    </Table>
  );
}

/** Under a heading: the unit in which it is typed, or what it is read with. */
function headingOf(row: TypedRow, units: DisplayUnits): string {
  if (row.field.choices) return row.field.optional ? 'if seen' : '';
  const { symbol } = shownUnit(row.field.as, units);
  const unit = `${symbol} ${referenceOf(row.field.as)}`.trim();
  return [unit, readWith(row), row.field.optional && row.field.row?.at === 1 ? 'if read' : '']
    .filter(Boolean)
    .join(', ');
}

/** Only what needs an eye: a figure that was understood as it stands is not said again. */
function saidOf(row: TypedRow, units: DisplayUnits): string {
  const wrong = problemText(row) !== '' || row.questioned || row.confirmed || asked(row);
  const inferred = row.read.kind === 'figure' && row.read.inferred !== null;
  return wrong || inferred ? `${row.field.row?.heading}: ${understood(row, units)} ` : '';
}
