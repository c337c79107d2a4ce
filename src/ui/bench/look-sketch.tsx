import type { LookStep } from '@/core/procedure/look-step';
import type { StepVerdict } from '@/core/vocabulary/verdict';
import { UnitSketch } from '@/ui/parts/unit-sketch';
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
  const { sketch, points, options } = step.feeds.look;
  const places = points.map(({ id, at, title }, index) => {
    const effect = options.find((option) => option.id === marked[id])?.effect;
    return {
      id,
      at,
      label: `${index + 1}, ${title}`,
      content: effect ? <VerdictShape verdict={verdictOf[effect]} /> : index + 1,
      current: id === current,
    };
  });
  return <UnitSketch className={styles.sketch} sketch={sketch} places={places} onChoose={onChoose} />;
}
