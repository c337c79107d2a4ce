import ButtonBase from '@mui/material/ButtonBase';
import type { LookStep } from '@/core/procedure/look-step';
import type { StepVerdict } from '@/core/vocabulary/verdict';
import { VerdictShape } from '@/ui/parts/verdict-mark';
import styles from './bench.module.css';

interface Props {
  readonly step: LookStep;
  readonly marked: Readonly<Record<string, string>>;
  /** Point that the next key marks. */
  readonly current: string;
  readonly onChoose: (point: string) => void;
}

const verdictOf: Readonly<Record<string, StepVerdict>> = { pass: 'pass', note: 'recorded', fail: 'fail' };

/** The unit as a sketch with its points numbered, each with the shape of what was said of it. */
export function LookSketch({ step, marked, current, onChoose }: Props) {
  return (
    <div className={styles.sketch}>
      <svg viewBox="0 0 320 200" aria-hidden>
        {step.feeds.look.sketch.map((shape) => (
          <path key={shape.path} d={shape.path} className={styles[`sketch-${shape.fill}`]} />
        ))}
      </svg>
      {step.feeds.look.points.map((point, at) => {
        const effect = step.feeds.look.options.find((option) => option.id === marked[point.id])?.effect;
        return (
          <ButtonBase
            key={point.id}
            aria-label={`${at + 1}, ${point.title}`}
            aria-pressed={point.id === current}
            style={{ left: `${(point.at[0] / 320) * 100}%`, top: `${(point.at[1] / 200) * 100}%` }}
            onClick={() => onChoose(point.id)}
          >
            {effect ? <VerdictShape verdict={verdictOf[effect]} /> : at + 1}
          </ButtonBase>
        );
      })}
    </div>
  );
}
