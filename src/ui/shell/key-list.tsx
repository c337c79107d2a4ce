'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { Key } from '@/ui/parts/key';
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

/** Every key, in a dialog. */
export default function KeyList({ onClose }: { readonly onClose: () => void }) {
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
    <Dialog open onClose={onClose} aria-labelledby="key-map-title" maxWidth="sm" fullWidth>
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
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
