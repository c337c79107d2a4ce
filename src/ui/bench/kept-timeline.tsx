'use client';
import LinearProgress from '@mui/material/LinearProgress';
import { useCallback, useEffect, useState } from 'react';
import type { TimelinePart, TimelineWindow } from '@/core/pictures/timeline-window';
import type { DisplayUnits } from '@/core/wording/display';
import type { TimelineEvent } from '@/charts/timeline';
import { TimelineView } from '@/ui/charts/timeline-view';
import { ask } from '@/ui/shell/request';

interface Props {
  readonly run: string;
  readonly step: string;
  readonly events: readonly TimelineEvent[];
  readonly units: DisplayUnits;
}

/** The time-line of a log that was kept, fetched a part at a time. */
export function KeptTimeline({ run, step, events, units }: Props) {
  const [first, setFirst] = useState<TimelinePart | null>(null);
  const [trouble, setTrouble] = useState('');
  const base = `/api/runs/${run}/timeline?step=${step}`;
  const look = useCallback(
    ({ from, to }: TimelineWindow) => ask<TimelinePart>(`${base}&from=${from}&to=${to}`),
    [base],
  );
  useEffect(() => {
    let wanted = true;
    ask<TimelinePart>(base).then(
      (part) => wanted && setFirst(part),
      (error: unknown) => wanted && setTrouble(error instanceof Error ? error.message : String(error)),
    );
    return () => {
      wanted = false;
    };
  }, [base]);
  if (trouble) return <p role="alert">{trouble}</p>;
  if (!first) return <LinearProgress aria-label="The drive is being read" />;
  return <TimelineView first={first} look={look} events={events} units={units} />;
}
