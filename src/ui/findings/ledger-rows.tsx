import { useState } from 'react';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import type { AnyKind } from '@/core/contract/kind';
import type { FaultExtent, Ledger, LedgerRow } from '@/core/diagnosis/ledger';
import { faultsOf } from '@/core/diagnosis/hypothesis';
import {
  extentText,
  findingText,
  hypothesisTitle,
  onlyLeads,
  probabilityText,
  strongest,
} from '@/core/wording/ledger-text';
import type { JobView } from '@/server/views/job-view';
import { useShop } from '@/ui/shell/shop-context';
import { OverTheTrace } from './over-the-trace';
import { WeighBars } from './weigh-bars';
import styles from './findings.module.css';

/** Rows likelier than this are shown at once, at most so many. */
const worthARow = 0.01;
const mostRows = 6;

interface Props {
  readonly view: JobView;
  readonly kind: AnyKind;
}

function Row({ view, kind, ledger, row }: Props & { readonly ledger: Ledger; readonly row: LedgerRow }) {
  const { units } = useShop();
  // Read off units of other sizes until it is fitted to this one: what was fitted is closer.
  const [fitted, setFitted] = useState<FaultExtent | null>(null);
  const extents = row.extents.map((extent) => (fitted?.fault === extent.fault ? fitted : extent));
  const steps = view.steps.map((step) => step.evaluation);
  const shows = faultsOf(row.hypothesis).flatMap(
    (id) => kind.model.faults.find((fault) => fault.id === id)?.shows ?? [],
  );
  // Before anything spoke it is a list of what is common, and no finding.
  const Title = ledger.findings === 0 ? 'span' : 'strong';
  return (
    <ListItem className={styles.row}>
      <details>
        <summary>
          <span className={styles.share}>
            {onlyLeads(row.probability, ledger) ? (
              <span className={styles.leads}>{probabilityText(row.probability, ledger)}</span>
            ) : (
              <>
                <span className={styles.figure}>{probabilityText(row.probability, ledger)}</span>
                <span className={styles.bar} aria-hidden="true">
                  <span style={{ width: `${Math.max(1, row.probability * 100)}%` }} />
                </span>
              </>
            )}
          </span>
          <span className={styles.what}>
            <Title className={styles.title}>{hypothesisTitle(kind, row.hypothesis)}</Title>
            {extents.map((extent) => (
              <span key={extent.fault}>{extentText(extent, units)}</span>
            ))}
            {faultsOf(row.hypothesis).some((id) => ledger.unseen.includes(id)) && (
              <span>No step of this plan would show it: it stands here by what the driver noticed.</span>
            )}
            {strongest(row, 2).map(({ finding, decibans }) => {
              const { title, said } = findingText(kind, finding, steps, units);
              return (
                <span key={`${title} ${said}`} className={styles.reason}>
                  <b>{decibans > 0 ? 'For' : 'Against'}</b> {title}: {said}
                </span>
              );
            })}
          </span>
        </summary>
        <div className={styles.opened}>
          {shows.map((text) => (
            <p key={text}>{text}</p>
          ))}
          <WeighBars view={view} kind={kind} row={row} />
          {faultsOf(row.hypothesis).length > 0 && (
            <OverTheTrace view={view} kind={kind} row={row} onFitted={setFitted} />
          )}
        </div>
      </details>
    </ListItem>
  );
}

/** Faults by how likely they are, each opened to what speaks for and against it. */
export function LedgerRows({ view, kind, ledger }: Props & { readonly ledger: Ledger }) {
  const likely = ledger.rows.filter((row, at) => at === 0 || row.probability >= worthARow).slice(0, mostRows);
  const rest = ledger.rows.filter((row) => !likely.includes(row));
  const left = rest.reduce((sum, row) => sum + row.probability, 0);
  return (
    <>
      <List component="ol" className={styles.ledger}>
        {likely.map((row) => (
          <Row key={row.id} view={view} kind={kind} ledger={ledger} row={row} />
        ))}
      </List>
      {rest.length > 0 && (
        <details className={styles.rest}>
          <summary>
            {rest.length} more,{' '}
            {ledger.borneOut || left > 0.1 ? `together ${probabilityText(left, ledger)}` : 'behind by far'}
          </summary>
          <List component="ol" className={styles.ledger}>
            {rest.map((row) => (
              <Row key={row.id} view={view} kind={kind} ledger={ledger} row={row} />
            ))}
          </List>
        </details>
      )}
    </>
  );
}
