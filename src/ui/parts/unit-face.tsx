import type { Face } from '@/server/jobs/unit-face';
import styles from './parts.module.css';

interface Props {
  readonly face: Face;
  readonly width?: number;
  readonly height?: number;
  /** What it was when the unit was here before, drawn under it. */
  readonly earlier?: Face['measured'];
}

/** A unit's face: its decisive test over the band where it should lie. Empty until it has been measured. */
export function UnitFace({ face, width = 96, height = 68, earlier = null }: Props) {
  const margin = 7;
  const endX = face.input[face.input.length - 1];
  const endY = Math.max(...face.high);
  const x = (value: number) => margin + (value / endX) * (width - 2 * margin);
  const y = (value: number) => height - margin - (Math.max(0, value) / endY) * (height - 2 * margin);
  const path = (points: readonly (readonly [number, number])[]) =>
    points
      .map(([px, py], i) => `${i === 0 ? 'M' : 'L'}${x(Math.min(px, endX)).toFixed(1)} ${y(py).toFixed(1)}`)
      .join('');
  const low = face.input.map((at, i) => [at, face.low[i]] as const);
  const high = face.input.map((at, i) => [at, face.high[i]] as const).reverse();
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className={styles.face}
      role="img"
      aria-label={face.measured ? 'Measured over the band of a sound unit' : 'Band of a sound unit, not measured yet'}
    >
      <path d={`${path([...low, ...high])}Z`} fill="var(--palette-tone-band)" />
      {earlier && (
        <path
          d={path(earlier.apply)}
          fill="none"
          stroke="var(--palette-tone-ink)"
          strokeWidth={1.6}
          strokeDasharray="2 4"
        />
      )}
      {face.measured && (
        <>
          <path d={path(face.measured.wayBack)} fill="none" stroke="var(--palette-tone-wayBack)" strokeWidth={1.4} />
          <path
            d={path(face.measured.apply)}
            fill="none"
            stroke="var(--palette-tone-measured)"
            strokeWidth={2}
            strokeLinejoin="round"
          />
        </>
      )}
    </svg>
  );
}
