'use client';
import { useEffect, useState } from 'react';
import { recorderSpeeds } from '@/server/recording/recorder-speeds';
import { Choice } from '@/ui/parts/choice';
import styles from './bench.module.css';

interface Props {
  /** Speed the recorder runs at, times real time. */
  readonly speed: number;
  readonly onChange: (speed: number) => void;
}

/** What was chosen stands in the list so long; what is in force after that, whatever was asked for, ms. */
const answersWithin = 1_500;

/** How fast the stand-in runs: what is in force, and what the server takes. */
export function RigTime({ speed, onChange }: Props) {
  const [asked, setAsked] = useState<number | null>(null);
  useEffect(() => {
    if (asked === null) return;
    const over = setTimeout(() => setAsked(null), answersWithin);
    return () => clearTimeout(over);
  }, [asked]);
  return (
    <span className={styles.speed}>
      Rig time
      <Choice
        label="Rig time"
        value={asked ?? speed}
        onChange={(chosen) => {
          const wanted = Number(chosen);
          setAsked(wanted);
          onChange(wanted);
        }}
      >
        {recorderSpeeds.map((each) => (
          <option key={each} value={each}>
            × {each}
          </option>
        ))}
      </Choice>
    </span>
  );
}
