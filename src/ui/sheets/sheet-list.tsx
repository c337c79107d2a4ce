'use client';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import Button from '@mui/material/Button';
import Link from 'next/link';
import type { SheetCard } from '@/server/jobs/sheet-cards';
import { UnitFace } from '@/ui/parts/unit-face';
import { PageHead } from '@/ui/shell/frame';
import styles from './sheets.module.css';

/** The library of unit sheets. */
export function SheetList({ sheets }: { readonly sheets: readonly SheetCard[] }) {
  return (
    <>
      <PageHead
        title="Unit sheets"
        actions={
          <Button component={Link} href="/sheets/new" variant="contained" color="primary">
            Make a sheet
          </Button>
        }
      />
      {sheets.length === 0 ? (
        <p>No sheets yet. Measure a unit’s diameters and make the first.</p>
      ) : (
        <List className={styles.list}>
          {sheets.map((sheet) => (
            <ListItem key={sheet.id}>
              <Link href={`/sheets/${sheet.id}`} className={styles.card}>
                <UnitFace face={sheet.face} width={120} height={84} />
                <div>
                  <h2>{sheet.name}</h2>
                  <p>{sheet.familyTitle}</p>
                </div>
              </Link>
            </ListItem>
          ))}
        </List>
      )}
    </>
  );
}
