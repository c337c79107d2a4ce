'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useColorScheme } from '@mui/material/styles';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Choice } from '@/ui/parts/choice';
import { Key } from '@/ui/parts/key';
import { useShop } from './shop-context';
import styles from './shell.module.css';

const everywhere: readonly [string, string][] = [
  ['F', 'Floor'],
  ['I', 'Instruments'],
  ['B', 'Book in a unit'],
  ['U', 'Next measurement units'],
  ['D', 'Day or dim'],
  ['?', 'This key map'],
];

const onTheBench: readonly [string, string][] = [
  ['Enter', 'The yellow action'],
  ['Space', 'Let the rig pull, or take the lever back'],
  ['↑ ↓', 'Lever, a little'],
  ['Page ↑ ↓', 'Lever, more'],
  ['Home', 'Let the lever go'],
  ['S', 'Stop recording here'],
  ['R', 'Run the step again'],
  ['X', 'Throw a finished run away'],
  ['1 … 9', 'Look at that point'],
  ['N P', 'Next or previous event of a drive'],
  ['Q W E', 'Say how the point looks, and on to the next'],
  ['Esc', 'Back to the job'],
];

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
  const list = (keys: readonly [string, string][]) => (
    <dl className={styles.keys}>
      {keys.map(([key, does]) => (
        <div key={key}>
          <dt>
            <Key>{key}</Key>
          </dt>
          <dd>{does}</dd>
        </div>
      ))}
    </dl>
  );
  return (
    <Dialog open={open} onClose={() => setOpen(false)} aria-labelledby="key-map-title" maxWidth="sm" fullWidth>
      <DialogTitle id="key-map-title">Keys</DialogTitle>
      <DialogContent>
        <div className={styles.keyColumns}>
          <section>
            <h3>Everywhere</h3>
            {list(everywhere)}
          </section>
          <section>
            <h3>On the bench</h3>
            {list(onTheBench)}
          </section>
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => setOpen(false)}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}

/** A visible control for each key of the map. */
export function ShellControls() {
  const { units, nextUnits, people, person, setPerson } = useShop();
  const { mode, setMode } = useColorScheme();
  return (
    <div className={styles.controls}>
      <Choice label="At this screen" value={person} onChange={setPerson}>
        {/* A shop that has entered nobody yet has somebody at its screen all the same. */}
        {(people.length > 0 ? people.map(({ name }) => name) : [person]).map((name) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </Choice>
      <Button size="small" onClick={nextUnits} suppressHydrationWarning>
        {units.title} <Key>U</Key>
      </Button>
      <Button size="small" onClick={() => setMode(mode === 'dark' ? 'light' : 'dark')} suppressHydrationWarning>
        {mode === 'dark' ? 'Dim' : 'Day'} <Key>D</Key>
      </Button>
    </div>
  );
}
