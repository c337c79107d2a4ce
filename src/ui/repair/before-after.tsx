'use client';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useEffect, useState } from 'react';
import type { LineOver } from '@/charts/over-each-other';
import { changesOf, type Change } from '@/core/judging/changes';
import { characteristicTitle } from '@/core/quantities/characteristics';
import { differenceText, readingShortText } from '@/core/wording/change-text';
import type { StepComparison } from '@/server/views/compare-step';
import type { JobView } from '@/server/views/job-view';
import { ComparedChart } from '@/ui/findings/compared-chart';
import { Choice } from '@/ui/parts/choice';
import { ask } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import styles from './repair.module.css';

function ChangeRow({ change }: { readonly change: Change }) {
  const { units } = useShop();
  return (
    <TableRow>
      <TableCell>{characteristicTitle(change.id)}</TableCell>
      <TableCell>{readingShortText(change.before, units)}</TableCell>
      <TableCell>{readingShortText(change.after, units)}</TableCell>
      <TableCell>{differenceText(change, units)}</TableCell>
    </TableRow>
  );
}

/** What the repair changed: every step that was done before and after it, drawn over itself and in figures. */
export function BeforeAfter({ view }: { readonly view: JobView }) {
  const again = view.due.map(({ step }) => step);
  const changes = changesOf(
    view.before,
    view.steps
      .map((step) => step.evaluation)
      .filter(({ step, verdict }) => again.includes(step) && verdict !== 'not-run'),
  );
  const steps = [...new Set(changes.map((change) => change.step))];
  const failed = view.before.find(({ step, verdict }) => verdict === 'fail' && steps.includes(step))?.step;
  const [chosen, choose] = useState<string | null>(null);
  const step = chosen ?? failed ?? steps[0];
  const [drawn, setDrawn] = useState<StepComparison | null>(null);
  const [trouble, setTrouble] = useState('');
  useEffect(() => {
    if (step === undefined) return;
    let wanted = true;
    ask<StepComparison>(`/api/jobs/${view.job.id}/compared?${new URLSearchParams({ step })}`).then(
      (found) => wanted && setDrawn(found),
      (error: unknown) => wanted && setTrouble(error instanceof Error ? error.message : String(error)),
    );
    return () => {
      wanted = false;
    };
  }, [step, view]);
  if (step === undefined) return null;
  const lines: LineOver[] =
    drawn?.step === step
      ? [
          ...(drawn.before ? [{ title: 'Before', line: drawn.before, look: 'before' as const }] : []),
          ...(drawn.now ? [{ title: 'After', line: drawn.now, look: 'measured' as const }] : []),
        ]
      : [];
  return (
    <section aria-label="Before and after">
      <div className={styles.beside}>
        <h2>Before and after</h2>
        <Choice label="Step that is compared" value={step} onChange={choose}>
          {steps.map((id) => (
            <option key={id} value={id}>
              {view.steps.find((each) => each.id === id)?.title ?? id}
            </option>
          ))}
        </Choice>
      </div>
      {lines.length > 0 && drawn && <ComparedChart title={`${drawn.title}, before and after`} lines={lines} />}
      {trouble && <p role="alert">{trouble}</p>}
      <Table className={styles.changes}>
        <TableHead>
          <TableRow>
            <TableCell>What</TableCell>
            <TableCell>Before ± U</TableCell>
            <TableCell>After ± U</TableCell>
            <TableCell>Change ± U</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {changes
            .filter((change) => change.step === step)
            .map((change) => (
              <ChangeRow key={change.id} change={change} />
            ))}
        </TableBody>
      </Table>
    </section>
  );
}
