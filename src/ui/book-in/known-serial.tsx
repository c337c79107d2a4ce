import Button from '@mui/material/Button';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { verdictWords } from '@/core/wording/verdict-words';
import type { KnownSerial } from '@/server/views/known-serial';
import { useWhen } from '@/ui/parts/when';
import { ask } from '@/ui/shell/request';
import styles from './book-in.module.css';

/** A serial is asked for once nobody has typed on it for so long, ms. */
const pause = 250;

/** What the house knows of the serial that is typed; null while that is not known, or nothing is. */
export function useKnownSerial(serial: string): KnownSerial | null {
  const [found, setFound] = useState<{ readonly of: string; readonly known: KnownSerial } | null>(null);
  useEffect(() => {
    if (serial.trim().length < 2) return;
    let late = false;
    const timer = setTimeout(() => {
      ask<KnownSerial>(`/api/serials?of=${encodeURIComponent(serial.trim())}`).then(
        (known) => late || !Array.isArray(known.jobs) || setFound({ of: serial, known }),
        // It is a help, and no more: who books in is not kept from it.
        () => undefined,
      );
    }, pause);
    return () => {
      late = true;
      clearTimeout(timer);
    };
  }, [serial]);
  return found?.of === serial && found.known.jobs.length > 0 ? found.known : null;
}

interface Props {
  readonly known: KnownSerial;
  /** Takes the vehicle and the sheet over from the last job. */
  readonly onTake: (last: NonNullable<KnownSerial['last']>) => void;
}

/** A unit that was here before: its jobs, and what can be taken over from the last. */
export function KnownSerialPanel({ known: { jobs, earlier, last }, onTake }: Props) {
  const when = useWhen();
  return (
    <section className={styles.known} aria-label="It was here before" role="status">
      <h2>It was here before</h2>
      <ul>
        {jobs.map(({ id, number, at, verdict, complaint }) => (
          <li key={id}>
            <Link href={`/jobs/${id}`}>Job {number}</Link>, {when(at, 'day')}
            {verdict ? `: ${verdictWords[verdict].toLowerCase()}` : ''}
            {complaint ? `. ${complaint}` : ''}
          </li>
        ))}
        {earlier > 0 && <li>and {earlier === 1 ? 'one job' : `${earlier} jobs`} before those</li>}
      </ul>
      {last && (
        <>
          <Button type="button" onClick={() => onTake(last)}>
            Take over {last.sheetId ? `${last.sheet}, ` : ''}
            {last.vehicle}
          </Button>
          {!last.sheetId && <p>Its sheet, {last.sheet}, is not in the library any more.</p>}
        </>
      )}
    </section>
  );
}
