'use client';
import { useState } from 'react';
import { recorderSpeeds } from '@/server/runs/recorder-speeds';
import styles from './bench.module.css';

interface Props {
  /** Speed the recorder runs at, times real time. */
  readonly speed: number;
  readonly onChange: (speed: number) => void;
}

/** How fast the stand-in runs. Shows what was chosen at once, until the recorder has answered. */
export function RigTime({ speed, onChange }: Props) {
  const [asked, setAsked] = useState({ wanted: speed, from: speed });
  return (
    <label className={styles.speed}>
      Rig time
      <select
        value={asked.from === speed ? asked.wanted : speed}
        onChange={(event) => {
          const wanted = Number(event.target.value);
          setAsked({ wanted, from: speed });
          onChange(wanted);
        }}
      >
        {recorderSpeeds.map((each) => (
          <option key={each} value={each}>
            × {each}
          </option>
        ))}
      </select>
    </label>
  );
}
