import type { CurvePicture } from '@/core/procedure/picture';
import { channelTitle } from '@/core/quantities/channels';
import styles from './bench.module.css';

/** What the lines of a curve are. */
export function CurveLegend({ curve }: { readonly curve: Pick<CurvePicture<unknown>, 'outputs' | 'sum'> }) {
  return (
    <div className={styles.legend}>
      <span>
        <i style={{ background: 'var(--palette-tone-measured)' }} /> pull
      </span>
      <span>
        <i style={{ background: 'var(--palette-tone-wayBack)' }} /> way back
      </span>
      {curve.outputs[1] && (
        <span>
          <i style={{ background: 'var(--palette-tone-ink)' }} /> {channelTitle(curve.outputs[1]).toLowerCase()}, dashed
        </span>
      )}
      {curve.sum && (
        <span>
          <i style={{ background: 'var(--palette-tone-ink)' }} /> {curve.sum.toLowerCase()}, dotted
        </span>
      )}
      <span>
        <i style={{ background: 'var(--palette-tone-bandEdge)' }} /> where a sound one lies
      </span>
    </div>
  );
}
