'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { LineOver } from '@/charts/over-each-other';
import type { AnyKind } from '@/core/contract/kind';
import { faultsOf } from '@/core/diagnosis/hypothesis';
import { leadingFaults, type FaultExtent, type LedgerRow } from '@/core/diagnosis/ledger';
import { inSentence } from '@/core/wording/in-sentence';
import { fitText, hypothesisTitle, strongest, type Fitting } from '@/core/wording/ledger-text';
import type { StepComparison } from '@/server/views/compare-step';
import type { JobView } from '@/server/views/job-view';
import { Choice } from '@/ui/parts/choice';
import { ask } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import { ComparedChart } from './compared-chart';
import styles from './findings.module.css';

interface Props {
  readonly view: JobView;
  readonly kind: AnyKind;
  readonly row: LedgerRow;
  /** How much of it there is, once that was fitted to what was measured. */
  readonly onFitted: (extent: FaultExtent) => void;
}

/** Measured steps that were done, those first that say most about a row. */
function stepsToDraw({
  view,
  kind,
  row,
}: Omit<Props, 'onFitted'>): readonly { readonly id: string; readonly title: string }[] {
  const done = view.steps.filter(
    ({ id, evaluation }) =>
      evaluation.verdict !== 'not-run' && kind.steps.find((step) => step.id === id)?.kind === 'measured',
  );
  const telling = strongest(row, row.weighed.length).flatMap(({ finding }) =>
    finding.kind === 'step' ? [finding.step] : [],
  );
  const rank = (id: string) => (telling.includes(id) ? telling.indexOf(id) : telling.length);
  return done.toSorted((a, b) => rank(a.id) - rank(b.id)).map(({ id, title }) => ({ id, title }));
}

/** A fault that is hardly likely is drawn as severe as it most likely would be: fitted, it would be nothing. */
function fittingOf({ ledger }: JobView, { hypothesis }: LedgerRow): Fitting {
  if (hypothesis.kind !== 'fault') return 'two-at-once';
  return ledger && leadingFaults(ledger).includes(hypothesis.fault) ? 'asked' : 'hardly-likely';
}

/** "run and rest and charge from empty". */
function stepsNamed(view: JobView, steps: readonly string[]): string {
  return steps.map((id) => inSentence(view.steps.find((step) => step.id === id)?.title ?? id)).join(' and ');
}

/** What this fault would draw, dashed over what was measured; worked out when it is asked for. */
export function OverTheTrace(props: Props) {
  const { view, kind, row, onFitted } = props;
  const { units } = useShop();
  const steps = stepsToDraw(props);
  const [drawn, setDrawn] = useState<StepComparison | null>(null);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const fitting = fittingOf(view, row);
  if (steps.length === 0) return null;
  const draw = async (step: string) => {
    setBusy(true);
    setTrouble('');
    const faults = faultsOf(row.hypothesis).map((id, at) => `${id}:${(row.severities[at] ?? 1).toFixed(3)}`);
    try {
      const query = new URLSearchParams({
        step,
        expected: faults.join('+'),
        ...(fitting === 'asked' ? { fit: 'yes' } : {}),
      });
      const compared = await ask<StepComparison>(`/api/jobs/${view.job.id}/compared?${query}`);
      setDrawn(compared);
      if (compared.fitted?.extent) onFitted(compared.fitted.extent);
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
    setBusy(false);
  };
  const title = hypothesisTitle(kind, row.hypothesis);
  const lines: LineOver[] = drawn
    ? [
        ...(drawn.now ? [{ title: 'Measured', line: drawn.now, look: 'measured' as const }] : []),
        ...(drawn.expected
          ? [{ title: `With “${title.toLowerCase()}”`, line: drawn.expected, look: 'expected' as const }]
          : []),
      ]
    : [];
  return (
    <div className={styles.over}>
      {drawn === null ? (
        <Button size="small" disabled={busy} onClick={() => void draw(steps[0].id)}>
          {busy ? 'Working it out …' : 'Draw what it would do over the trace'}
        </Button>
      ) : (
        <>
          <Choice label="Step that is drawn" value={drawn.step} onChange={(step) => void draw(step)}>
            {steps.map(({ id, title: name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Choice>
          {drawn.now === null && (
            <p>There is no trace of this step to draw it over: it was read off dials, or its log lacks the channels.</p>
          )}
          {drawn.expected === null && <p>No bench runs this step, so that nothing can be drawn beside it.</p>}
          {drawn.expected !== null && (
            <p>{fitText(drawn.fitted, fitting, (steps) => stepsNamed(view, steps), units)}</p>
          )}
          {lines.length > 0 && <ComparedChart title={drawn.title} lines={lines} />}
        </>
      )}
      {trouble && <p role="alert">{trouble}</p>}
    </div>
  );
}
