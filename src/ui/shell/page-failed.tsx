'use client';
import Button from '@mui/material/Button';
import styles from './shell.module.css';

interface Props {
  readonly error: Error & { digest?: string };
  readonly reset: () => void;
}

/** A page that could not be made or drawn: what that means, and two ways on. Nothing that was recorded is touched by it. */
export function PageFailed({ error, reset }: Props) {
  return (
    // Nothing but what every page carries: this must be shown when nothing more can be fetched.
    <section role="alert" className={styles.failed}>
      <p>
        This page could not be shown. What was recorded and what you typed is kept; the server’s log says what broke
        {error.digest ? ` (${error.digest})` : ''}.
      </p>
      <Button color="inherit" onClick={reset}>
        Try again
      </Button>
      {/* Loaded whole: what broke is left behind, and no page carries more for it. */}
      <Button color="inherit" href="/">
        To the floor
      </Button>
    </section>
  );
}
