import ButtonBase from '@mui/material/ButtonBase';
import type { ReactNode } from 'react';
import type { SketchShape } from '@/core/procedure/look-step';
import styles from './unit-sketch.module.css';

/** Size of the field that sketches are drawn in. */
const [width, height] = [320, 200];

/** A place on a sketch that can be chosen. */
export interface SketchPlace {
  readonly id: string;
  readonly at: readonly [number, number];
  /** What it is, for those who do not see where it stands. */
  readonly label: string;
  readonly content: ReactNode;
  readonly current?: boolean;
  /** Whether the findings point at it, and whether something was done to it. */
  readonly blamed?: boolean;
  readonly touched?: boolean;
}

interface Props {
  readonly className?: string;
  readonly sketch: readonly SketchShape[];
  readonly places: readonly SketchPlace[];
  readonly onChoose: (id: string) => void;
}

/** A unit as a line drawing with places on it to choose. */
export function UnitSketch({ className = '', sketch, places, onChoose }: Props) {
  return (
    <div className={`${styles.sketch} ${className}`}>
      <svg viewBox={`0 0 ${width} ${height}`} aria-hidden>
        {sketch.map((shape) => (
          <path key={shape.path} d={shape.path} className={styles[shape.fill]} />
        ))}
      </svg>
      {places.map(({ id, at, label, content, current, blamed, touched }) => (
        <ButtonBase
          key={id}
          aria-label={label}
          aria-pressed={current}
          data-blamed={blamed}
          data-touched={touched}
          style={{ left: `${(at[0] / width) * 100}%`, top: `${(at[1] / height) * 100}%` }}
          onClick={() => onChoose(id)}
        >
          {content}
        </ButtonBase>
      ))}
    </div>
  );
}
