import type { FacePaths } from '@/core/pictures/face-paths';
import styles from './parts.module.css';

/** A unit's face: its decisive test over the band where it should lie. Empty until it has been measured. */
export function UnitFace({ face }: { readonly face: FacePaths }) {
  const { width, height, band, apply, wayBack, earlier } = face;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className={styles.face}
      role="img"
      aria-label={apply ? 'Measured over the band of a sound unit' : 'Band of a sound unit, not measured yet'}
    >
      <path d={band} className={styles.faceBand} />
      {earlier && <path d={earlier} className={styles.faceEarlier} />}
      {wayBack && <path d={wayBack} className={styles.faceWayBack} />}
      {apply && <path d={apply} className={styles.faceApply} />}
    </svg>
  );
}
