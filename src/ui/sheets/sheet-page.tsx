'use client';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import Button from '@mui/material/Button';
import Link from 'next/link';
import { kindOfSheet } from '@/core/families/registry';
import { writeUnitSheet } from '@/core/formats/unit-sheet';
import type { StoredSheet } from '@/data/unit-sheets';
import { PageHead } from '@/ui/shell/frame';
import type { Air } from '@/core/quantities/standard-atmosphere';
import { SheetCurve } from './sheet-curve';
import styles from './sheets.module.css';

interface Props {
  readonly sheet: StoredSheet;
  readonly air: Air;
}

/** One unit sheet: its figures, and the band they give. */
export function SheetPage({ sheet, air }: Props) {
  const fields = kindOfSheet(sheet)?.sheet.fields ?? [];
  const spec = sheet.spec as Readonly<Record<string, unknown>>;
  const file = JSON.stringify(writeUnitSheet(sheet.family, sheet.name, sheet.spec), null, 2);
  return (
    <>
      <PageHead
        title={sheet.name}
        actions={
          <Button component={Link} href={`/book-in?sheet=${sheet.id}`} variant="contained" color="primary">
            Book in one of these
          </Button>
        }
      />
      <div className={styles.layout}>
        <Table className={styles.table}>
          <TableBody>
            {fields
              .filter((field) => spec[field.name] !== undefined)
              .map((field) => (
                <TableRow key={field.name}>
                  <TableCell component="th" scope="row">
                    {field.label}
                  </TableCell>
                  <TableCell>
                    {field.choices?.find((choice) => choice.value === spec[field.name])?.title ??
                      String(spec[field.name])}{' '}
                    {field.unit === '1' ? '' : field.unit}
                  </TableCell>
                </TableRow>
              ))}
          </TableBody>
        </Table>
        <aside className={styles.side} aria-label="Expected curve">
          <p>Where a sound one lies in today’s air.</p>
          <SheetCurve familyId={sheet.family} spec={sheet.spec} air={air} className={styles.chart} />
          <div className={styles.row}>
            <Button
              component="a"
              href={`data:application/json;charset=utf-8,${encodeURIComponent(file)}`}
              download={`${sheet.name.replace(/\W+/g, '-').toLowerCase()}.json`}
            >
              Download this sheet
            </Button>
          </div>
        </aside>
      </div>
    </>
  );
}
