'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { send } from '@/ui/shell/request';

/** A hand moves faster than the network: at most one command is under way, and the newest position always follows. */
export function useLever(runId: string | null, onTrouble: (message: string) => void) {
  const [held, setHeld] = useState<number | null>(null);
  const wanted = useRef<number | null>(null);
  const busy = useRef(false);
  const run = useRef(runId);
  useEffect(() => {
    run.current = runId;
  }, [runId]);

  const flush = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    while (wanted.current !== null && run.current !== null) {
      const level = wanted.current;
      wanted.current = null;
      try {
        await send(`/api/runs/${run.current}/command`, { kind: 'lever', level });
      } catch (error) {
        onTrouble(error instanceof Error ? error.message : String(error));
        wanted.current = null;
      }
    }
    busy.current = false;
  }, [onTrouble]);

  const pull = useCallback(
    (level: number) => {
      setHeld(level);
      wanted.current = level;
      void flush();
    },
    [flush],
  );
  const release = useCallback(() => setHeld(null), []);
  return { held, pull, release };
}
