'use client';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import * as z from 'zod';
import type { AnyKind } from '@/core/contract/kind';
import { minutesOfSteps } from '@/core/contract/one-log';
import type { Part } from '@/core/contract/part';
import { faultsOf } from '@/core/diagnosis/hypothesis';
import { partActions, verificationOf, type PartWork } from '@/core/judging/verification';
import { probabilityText } from '@/core/wording/ledger-text';
import { actionWords } from '@/core/wording/repair-text';
import type { JobView } from '@/server/views/job-view';
import { Choice } from '@/ui/parts/choice';
import { send } from '@/ui/shell/request';
import { useShop, useStored } from '@/ui/shell/shop-context';
import { choiceOf, PartsDiagram, worthPointing } from './parts-diagram';
import styles from './repair.module.css';

const draftSchema = z.object({
  work: z.record(z.string(), z.object({ action: z.enum(partActions), with: z.string() })),
  note: z.string(),
});
type Draft = z.infer<typeof draftSchema>;

const nothing: Draft = { work: {}, note: '' };

/** What was typed so far, as this browser kept it; nothing where that makes no sense any more. */
function draftIn(text: string): Draft {
  try {
    return draftSchema.parse(JSON.parse(text));
  } catch {
    return nothing;
  }
}

/** How likely it is that a part is at fault, by the ledger; two faults at once count for the parts of both. */
function blameOf(view: JobView, part: Part): number {
  return (view.ledger?.rows ?? [])
    .filter((row) => faultsOf(row.hypothesis).some((fault) => part.faults.includes(fault)))
    .reduce((sum, row) => sum + row.probability, 0);
}

/** What was done to each part, put on record as the beginning of another round. */
export function RepairForm({ view, kind }: { readonly view: JobView; readonly kind: AnyKind }) {
  const router = useRouter();
  const { person } = useShop();
  const { job } = view;
  const [kept, keep] = useStored(`hard-pedal-repair-${job.id}-${view.round}`, '');
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const draft = draftIn(kept);
  const change = (over: Partial<Draft>) => keep(JSON.stringify({ ...draft, ...over }));
  const said = (part: string) => draft.work[part] ?? { action: 'left', with: '' };
  const set = (part: string, over: Partial<Draft['work'][string]>) =>
    change({ work: { ...draft.work, [part]: { ...said(part), ...over } } });
  const work: PartWork[] = kind.parts.map(({ id }) => ({ part: id, ...said(id) }));
  const touched = work.filter(({ action }) => action !== 'left');
  const due = verificationOf(
    kind,
    job.plan,
    view.steps.map((step) => step.evaluation),
    work,
  );
  const minutes = minutesOfSteps(
    kind,
    job.plan,
    due.map(({ step }) => step),
  );
  const parts = kind.parts.toSorted((a, b) => blameOf(view, b) - blameOf(view, a));
  const record = async () => {
    setBusy(true);
    setTrouble('');
    try {
      await send(`/api/jobs/${job.id}/repairs`, { person, work: touched, note: draft.note });
      keep('');
      router.refresh();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
    setBusy(false);
  };
  const sureness = { borneOut: view.ledger?.borneOut ?? false };
  return (
    <section aria-label="Put a repair on record">
      <h2>{view.repairs.length === 0 ? 'What was done to it' : 'Another repair'}</h2>
      <PartsDiagram
        kind={kind}
        parts={parts}
        sureness={sureness}
        blame={(part) => blameOf(view, part)}
        touched={touched}
      />
      <Table className={styles.parts}>
        <TableHead>
          <TableRow>
            <TableCell>Part</TableCell>
            <TableCell>By the findings</TableCell>
            <TableCell>What was done</TableCell>
            <TableCell>With: part number, fluid</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {parts.map((part, at) => {
            const blame = blameOf(view, part);
            return (
              <TableRow key={part.id}>
                <TableCell>
                  <span className={styles.number}>{at + 1}</span> {part.title}
                </TableCell>
                <TableCell>{blame >= worthPointing ? `at fault: ${probabilityText(blame, sureness)}` : '–'}</TableCell>
                <TableCell>
                  <Choice
                    id={choiceOf(part.id)}
                    label={`${part.title}: what was done`}
                    value={said(part.id).action}
                    onChange={(action) => set(part.id, { action: action as PartWork['action'] })}
                  >
                    {partActions.map((action) => (
                      <option key={action} value={action}>
                        {actionWords[action]}
                      </option>
                    ))}
                  </Choice>
                </TableCell>
                <TableCell>
                  <TextField
                    value={said(part.id).with}
                    disabled={said(part.id).action === 'left'}
                    onChange={(event) => set(part.id, { with: event.target.value })}
                    slotProps={{ htmlInput: { 'aria-label': `${part.title}: with what`, maxLength: 120 } }}
                  />
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
      <TextField
        label="What else there is to say"
        value={draft.note}
        onChange={(event) => change({ note: event.target.value })}
        multiline
        minRows={2}
        slotProps={{ htmlInput: { maxLength: 500 } }}
        sx={{ marginTop: 2 }}
      />
      <div className={styles.foot}>
        <p>
          {touched.length === 0
            ? 'Say of at least one part what was done to it.'
            : `${due.length} ${due.length === 1 ? 'step' : 'steps'} will be done again to prove it, about ${minutes} min. ${person} puts it on record.`}
        </p>
        <Button
          variant={view.repairs.length === 0 ? 'contained' : 'outlined'}
          color={view.repairs.length === 0 ? 'primary' : 'inherit'}
          disabled={busy || touched.length === 0}
          onClick={() => void record()}
        >
          Put it on record
        </Button>
      </div>
      {trouble && <p role="alert">{trouble}</p>}
    </section>
  );
}
