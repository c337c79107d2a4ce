'use client';
import { recorderSpeeds } from '@/server/recording/recorder-speeds';
import { Choice } from '@/ui/parts/choice';
import styles from './bench.module.css';
import { useAskedFor } from './use-asked-for';

interface Props {
  /** Speed the recorder runs at, times real time. */
  readonly speed: number;
  /** How fast it has really run of late; the stand-in may be slower than it is asked to be. */
  readonly pace?: number;
  /** Asks for a speed; false where it was refused. */
  readonly onChange: (speed: number) => Promise<boolean>;
}

/** A pace that is less than this share of what was asked for is said. */
const slow = 0.8;

/** How fast the stand-in runs: what was chosen stands, whatever the server says meanwhile, and goes back only where it was refused. */
export function RigTime({ speed, pace = speed, onChange }: Props) {
  const { value, underWay, choose } = useAskedFor(speed, onChange);
  return (
    <span className={styles.speed}>
      Rig time
      <Choice label="Rig time" value={value} onChange={(chosen) => choose(Number(chosen))}>
        {recorderSpeeds.map((each) => (
          <option key={each} value={each}>
            × {each}
          </option>
        ))}
      </Choice>
      {/* As wide whether it says something or not: nothing beside it moves. */}
      <span role="status" className={styles.speedState}>
        {underWay ? 'on its way' : value > 1 && pace < slow * value ? `runs × ${Math.max(1, Math.round(pace))}` : ''}
      </span>
    </span>
  );
}
