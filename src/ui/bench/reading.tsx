import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import { liveFigure } from '@/core/wording/display';
import styles from './bench.module.css';

interface Props {
  readonly title: string;
  readonly value: number | undefined;
  readonly unit: MeasurementUnit;
  readonly reference: string;
  /** Where the reading should be now, SI. */
  readonly band: readonly [number, number] | undefined;
  /** Highest or lowest so far, SI, with its word. */
  readonly tick: { readonly word: string; readonly value: number } | null;
  /** Full scale of the bar, SI. */
  readonly end: number;
}

/** A large figure with unit and reference, on a bar with its band, a pointer, and a tick for the peak or lowest. */
export function Reading({ title, value, unit, reference, band, tick, end }: Props) {
  const at = (si: number) => `${Math.min(100, Math.max(0, (si / end) * 100))}%`;
  const state = unit.symbol === '1';
  const shown = value === undefined ? '–' : state ? (value >= 0.5 ? 'closed' : 'open') : liveFigure(value, unit);
  return (
    <section className={styles.reading} aria-label={title}>
      <header>
        <h2>{title}</h2>
        {tick && Number.isFinite(tick.value) && (
          <span>
            {tick.word} {liveFigure(tick.value, unit)}
          </span>
        )}
      </header>
      <p className={styles.figure}>
        <output>{shown}</output>
        {!state && (
          <small>
            {unit.symbol} {reference}
          </small>
        )}
      </p>
      {!state && (
        <div className={styles.bar} aria-hidden="true">
          {band && <i className={styles.barBand} style={{ left: at(band[0]), right: `calc(100% - ${at(band[1])})` }} />}
          {tick && Number.isFinite(tick.value) && <i className={styles.barTick} style={{ left: at(tick.value) }} />}
          {value !== undefined && Number.isFinite(fromSi(value, unit)) && (
            <i className={styles.barPointer} style={{ left: at(value) }} />
          )}
        </div>
      )}
    </section>
  );
}
