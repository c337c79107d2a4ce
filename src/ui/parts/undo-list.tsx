'use client';
import List from '@mui/material/List';
import Button from '@mui/material/Button';
import ListItem from '@mui/material/ListItem';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Undoable } from '@/server/views/undoable';
import { send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import { useWhen } from './when';
import styles from './parts.module.css';

const words: Readonly<Record<Undoable['what'], (title: string) => string>> = {
  discarded: (title) => `A run of “${title}” was thrown away`,
  'struck-out': (title) => `A run of “${title}” was struck out`,
  moved: (title) => `Moved: ${title}`,
  repaired: (title) => `A repair was put on record: ${title}`,
  'taken-out': () => 'Taken out of the book',
  corrected: (title) => `Corrected: ${title}`,
};

/** What can be taken back of what was done within the day: one line each, with the way back beside it. */
export function UndoList({
  undoable,
  of,
}: {
  readonly undoable: readonly Undoable[];
  /** Whose they are, where several units stand in one list; one to a line. */
  readonly of?: readonly string[];
}) {
  const when = useWhen();
  const router = useRouter();
  const { person } = useShop();
  const [trouble, setTrouble] = useState('');
  if (undoable.length === 0) return null;
  const bringBack = async (act: number) => {
    setTrouble('');
    try {
      await send(`/api/acts/${act}`, { person }, 'DELETE');
      router.refresh();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className={styles.undo} role="group" aria-label="Can be brought back">
      {trouble && <p role="alert">{trouble}</p>}
      <List>
        {undoable.map(({ act, what, of: done, person: by, at }, line) => {
          const said = `${of ? `${of[line]}: ` : ''}${words[what](done?.title ?? '')}`;
          return (
            <ListItem key={act}>
              <span>
                {said}
                <small>
                  {when(at, 'moment')}, {by}
                </small>
              </span>
              <Button size="small" onClick={() => void bringBack(act)} aria-label={`Bring back: ${said}`}>
                Bring it back
              </Button>
            </ListItem>
          );
        })}
      </List>
    </div>
  );
}
