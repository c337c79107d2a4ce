'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Link from 'next/link';

interface Props {
  readonly error: Error & { digest?: string };
  readonly reset: () => void;
}

/** A page that could not be made or drawn: what that means, and two ways on. Nothing that was recorded is touched by it. */
export function PageFailed({ error, reset }: Props) {
  return (
    <Alert
      severity="error"
      action={
        <>
          <Button color="inherit" onClick={reset}>
            Try again
          </Button>
          <Button color="inherit" component={Link} href="/">
            To the floor
          </Button>
        </>
      }
    >
      This page could not be shown. What was recorded and what you typed is kept; the server’s log says what broke
      {error.digest ? ` (${error.digest})` : ''}.
    </Alert>
  );
}
