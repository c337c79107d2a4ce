import Link from 'next/link';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import type { AnyKind } from '@/core/contract/kind';
import type { LedgerRow } from '@/core/diagnosis/ledger';
import { findingText, strongest } from '@/core/wording/ledger-text';
import type { JobView } from '@/server/views/job-view';
import { useShop } from '@/ui/shell/shop-context';
import styles from './findings.module.css';

/** Decibans that fill half the scale: what says more says no more to an eye. */
const wholeScale = 30;

const everything = Number.POSITIVE_INFINITY;

/** What every finding says for or against one row: to the right for it, to the left against it. */
export function WeighBars({
  view,
  kind,
  row,
}: {
  readonly view: JobView;
  readonly kind: AnyKind;
  readonly row: LedgerRow;
}) {
  const { units } = useShop();
  const steps = view.steps.map((step) => step.evaluation);
  const weighed = strongest(row, everything);
  const silent = row.weighed.length - weighed.length;
  if (row.weighed.length === 0) return null;
  return (
    <>
      <List className={styles.bars} aria-label="For and against, by finding">
        {weighed.map(({ finding, decibans }) => {
          const { title, said } = findingText(kind, finding, steps, units);
          const width = `${(Math.min(Math.abs(decibans), wholeScale) / wholeScale) * 50}%`;
          return (
            <ListItem key={`${title} ${said}`}>
              <span className={styles.finding}>
                {finding.kind === 'symptom' ? (
                  title
                ) : (
                  <Link href={`/jobs/${view.job.id}/bench/${finding.step}`}>{title}</Link>
                )}
                <small>{said}</small>
              </span>
              <span className={styles.scale} aria-hidden="true">
                <span className={decibans > 0 ? styles.for : styles.against} style={{ width }} />
              </span>
              <span className={styles.decibans}>
                {decibans > 0 ? 'for' : 'against'} {Math.abs(decibans).toFixed(0)} dB
              </span>
            </ListItem>
          );
        })}
      </List>
      <p className={styles.note}>
        Weight of evidence in decibans against everything else that it could be: 10 dB are ten to one.
        {silent > 0 && ` ${silent} more ${silent === 1 ? 'finding says' : 'findings say'} nothing either way.`}
      </p>
    </>
  );
}
