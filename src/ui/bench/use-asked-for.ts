'use client';
import { useCallback, useEffect, useRef, useState } from 'react';

/** What was taken and is not in force after so long was overruled by another screen, ms. */
const overruledAfter = 5_000;

interface AskedFor<T> {
  /** What was chosen last, or what is in force. */
  readonly value: T;
  /** What was chosen is not in force yet. */
  readonly underWay: boolean;
  readonly choose: (wanted: T) => void;
}

/**
 * A control of something that another place decides: what was chosen stands in it until that is in force, and goes back only where it was
 * refused. One order is under way at a time, and the newest always follows: however quickly somebody chooses, the last choice wins.
 */
export function useAskedFor<T>(inForce: T, order: (wanted: T) => Promise<boolean>): AskedFor<T> {
  const [asked, setAsked] = useState<{ readonly wanted: T; readonly taken: boolean } | null>(null);
  const newest = useRef<T | null>(null);
  const busy = useRef(false);
  // What was taken is in force as soon as the other place says so.
  if (asked?.taken && asked.wanted === inForce) setAsked(null);
  useEffect(() => {
    if (!asked?.taken) return;
    const over = setTimeout(() => setAsked(null), overruledAfter);
    return () => clearTimeout(over);
  }, [asked]);

  const flush = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    while (newest.current !== null) {
      const wanted = newest.current;
      newest.current = null;
      const taken = await order(wanted);
      if (newest.current === null) setAsked(taken ? { wanted, taken } : null);
    }
    busy.current = false;
  }, [order]);

  const choose = useCallback(
    (wanted: T) => {
      newest.current = wanted;
      setAsked({ wanted, taken: false });
      void flush();
    },
    [flush],
  );
  return { value: asked?.wanted ?? inForce, underWay: asked !== null, choose };
}
