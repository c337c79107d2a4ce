'use client';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useState } from 'react';
import type { SheetCard } from '@/server/shop/sheet-cards';
import { UnitFace } from '@/ui/parts/unit-face';
import { PageHead } from '@/ui/shell/frame';
import { foundSheets } from './found-sheets';
import styles from './sheets.module.css';

/** The library of unit sheets. */
export function SheetList({ sheets }: { readonly sheets: readonly SheetCard[] }) {
  const [words, setWords] = useState('');
  const found = foundSheets(sheets, words);
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
        <>
          <div className={styles.find} role="search">
            <TextField
              id="find-sheets"
              label="Find"
              value={words}
              helperText="A name, a kind, or what it is called in the shop"
              onChange={({ target }) => setWords(target.value)}
            />
            <div aria-live="polite">
              {found.said.map(({ title, means }) => (
                <p key={title}>
                  <strong>{title}</strong>: {means}.
                </p>
              ))}
              {found.sheets.length === 0 && <p>No sheet is called so.</p>}
            </div>
          </div>
          <List className={styles.list}>
            {found.sheets.map((sheet) => (
              <ListItem key={sheet.id}>
                <Link href={`/sheets/${sheet.id}`} className={styles.card}>
                  <UnitFace face={sheet.face} />
                  <div>
                    <h2>{sheet.name}</h2>
                    <p>{sheet.familyTitle}</p>
                  </div>
                </Link>
              </ListItem>
            ))}
          </List>
        </>
      )}
    </>
  );
}
