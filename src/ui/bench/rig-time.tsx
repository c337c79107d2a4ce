'use client';
import { recorderSpeeds } from '@/server/runs/recorder-speeds';
import styles from './bench.module.css';

interface Props {
  /** Speed the recorder runs at, times real time. */
  readonly speed: number;
  readonly onChange: (speed: number) => void;
}

/** How fast the stand-in runs: what is in force, and what the server takes. */
export function RigTime({ speed, onChange }: Props) {
  return (
    <label className={styles.speed}>
      Rig time
      <select value={speed} onChange={(event) => onChange(Number(event.target.value))}>
        {recorderSpeeds.map((each) => (
          <option key={each} value={each}>
            × {each}
          </option>
        ))}
      </select>
    </label>
  );
}
