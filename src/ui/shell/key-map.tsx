'use client';
import Button from '@mui/material/Button';
import { useColorScheme } from '@mui/material/styles';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Key } from '@/ui/parts/key';
import { useShop } from './shop-context';
import styles from './shell.module.css';

// Loaded when somebody asks for it.
const KeyList = dynamic(() => import('./key-list'), { ssr: false });

/** Opens with "?" and lists every key; also binds the keys that work everywhere. */
export function KeyMap() {
  const [open, setOpen] = useState(false);
  const router = useRouter();
  const { nextUnits } = useShop();
  const { mode, setMode } = useColorScheme();
  useHotkeys('shift+slash, ?', () => setOpen((was) => !was), { useKey: true });
  useHotkeys('f', () => router.push('/'));
  useHotkeys('i', () => router.push('/instruments'));
  useHotkeys('b', () => router.push('/book-in'));
  useHotkeys('u', nextUnits, [nextUnits]);
  useHotkeys('d', () => setMode(mode === 'dark' ? 'light' : 'dark'), [mode]);
  return open ? <KeyList onClose={() => setOpen(false)} /> : null;
}

/** A visible control for each key of the map. */
export function ShellControls() {
  const { units, nextUnits, people, person, setPerson } = useShop();
  const { mode, setMode } = useColorScheme();
  return (
    <div className={styles.controls}>
      {/* The browser's own: every place carries it, and needs none of the fields of forms for it. */}
      <select
        className={styles.person}
        aria-label="At this screen"
        value={person}
        onChange={(event) => setPerson(event.target.value)}
      >
        {/* A shop that has entered nobody yet has somebody at its screen all the same. */}
        {people.every(({ name }) => name !== person) && (
          <option value={person}>{people.length > 0 ? `${person}: not on the list` : person}</option>
        )}
        {people.map(({ id, name }) => (
          <option key={id} value={name}>
            {name}
          </option>
        ))}
      </select>
      <Button size="small" onClick={nextUnits} suppressHydrationWarning>
        {units.title} <Key>U</Key>
      </Button>
      <Button size="small" onClick={() => setMode(mode === 'dark' ? 'light' : 'dark')} suppressHydrationWarning>
        {mode === 'dark' ? 'Dim' : 'Day'} <Key>D</Key>
      </Button>
    </div>
  );
}
