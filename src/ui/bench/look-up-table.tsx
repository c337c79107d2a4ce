import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { LookUpTable as Figures } from '@/core/procedure/typed-entry';
import { liveFigure, referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import styles from './bench.module.css';

/** What a dial is read against, figure by figure; it prints alone. */
export function LookUpTable({ table, units }: { readonly table: Figures; readonly units: DisplayUnits }) {
  return (
    <Table className={styles.lookUp} aria-label={table.title} size="small">
      <caption>{table.title}</caption>
      <TableHead>
        <TableRow>
          {table.columns.map(({ title, as }) => (
            <TableCell key={title} align="right">
              {title}, {`${shownUnit(as, units).symbol} ${referenceOf(as)}`.trim()}
            </TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody>
        {table.rows.map((row) => (
          <TableRow key={row[0]}>
            {row.map((value, at) => (
              <TableCell key={table.columns[at].title} align="right">
                {liveFigure(value, shownUnit(table.columns[at].as, units))}
              </TableCell>
            ))}
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
