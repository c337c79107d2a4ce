import LinearProgress from '@mui/material/LinearProgress';
import styles from './shell.module.css';

/** A page that is being made: said at once, so that nobody presses twice. */
export function OnItsWay() {
  return (
    <div className={styles.onItsWay} role="status">
      <LinearProgress aria-label="This page is on its way" />
    </div>
  );
}
