import type { AnyKind } from '@/core/contract/kind';
import type { Ledger } from '@/core/diagnosis/ledger';
import type { Part } from '@/core/contract/part';
import type { PartWork } from '@/core/judging/verification';
import { probabilityText } from '@/core/wording/ledger-text';
import { actionWords } from '@/core/wording/repair-text';
import { UnitSketch } from '@/ui/parts/unit-sketch';
import styles from './repair.module.css';

/** Parts below this blame are not pointed at. */
export const worthPointing = 0.05;

/** Id of the choice of what was done to a part. */
export const choiceOf = (part: string) => `done-to-${part}`;

interface Props {
  readonly kind: AnyKind;
  /** Numbered as they stand. */
  readonly parts: readonly Part[];
  readonly blame: (part: Part) => number;
  readonly sureness: Pick<Ledger, 'borneOut'>;
  readonly touched: readonly PartWork[];
}

/** The unit with its parts numbered on it: which the findings point at, and to which something was done. A part leads to its row. */
export function PartsDiagram({ kind, parts, blame, sureness, touched }: Props) {
  const places = parts.map((part, at) => {
    const [share, work] = [blame(part), touched.find((each) => each.part === part.id)];
    const said = [
      `${at + 1}, ${part.title}`,
      ...(share >= worthPointing ? [`at fault: ${probabilityText(share, sureness)}`] : []),
      ...(work ? [actionWords[work.action].toLowerCase()] : []),
    ];
    return {
      id: part.id,
      at: kind.diagram.at[part.id],
      label: said.join(', '),
      content: at + 1,
      blamed: share >= worthPointing,
      touched: work !== undefined,
    };
  });
  return (
    <figure className={styles.diagram}>
      <UnitSketch
        sketch={kind.diagram.sketch}
        places={places}
        onChoose={(part) => document.getElementById(choiceOf(part))?.focus()}
      />
      <figcaption>
        Numbers are those of the rows below. Dark: the findings point at it. A second frame: something was done to it.
      </figcaption>
    </figure>
  );
}
