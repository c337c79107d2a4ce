import type { JudgedStep } from '@/core/judging/evaluate-unit';
import { referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import type { JobView } from '@/server/views/job-view';
import { expectedText, readWith } from './reading-words';
import type { TypedRow } from './use-typed-readings';
import styles from './bench.module.css';

interface Props {
  readonly view: JobView;
  readonly step: JudgedStep;
  readonly air: string;
  readonly rows: readonly TypedRow[];
  readonly units: DisplayUnits;
}

/** Empty lines of a table on paper. */
const lines = 16;

const unitOf = ({ field }: TypedRow, units: DisplayUnits) =>
  field.choices ? '' : `${shownUnit(field.as, units).symbol} ${referenceOf(field.as)}`.trim();

/** The same fields on paper, to be filled in at a bench without a screen and typed after: seen only where it is printed. */
export function Worksheet({ view, step, air, rows, units }: Props) {
  const once = rows.filter(({ field }) => !field.row);
  const withExpected = once.some((row) => expectedText(row, units) !== '');
  const columns = rows.filter(({ field }) => field.row?.at === 1);
  return (
    <section className={styles.worksheet} aria-hidden="true">
      <h2>{step.title}</h2>
      <p>
        {view.job.serial} · {view.job.sheet.name} · {view.job.vehicle} · {air}
      </p>
      <p>{step.why}</p>
      <p>Read by ____________________ on ____________________</p>
      {once.length > 0 && (
        <table>
          <tbody>
            {once.map((row) => (
              <tr key={row.field.id}>
                <th scope="row">
                  {row.field.title}
                  <small>{[row.field.hint, readWith(row)].filter(Boolean).join('; ')}</small>
                </th>
                <td>{row.field.choices?.map((choice) => `☐ ${choice}`).join('   ') ?? ''}</td>
                <td>{unitOf(row, units)}</td>
                {withExpected && <td>{expectedText(row, units)}</td>}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {columns.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">Row</th>
              {columns.map((row) => (
                <th key={row.field.id} scope="col">
                  {row.field.row?.heading}
                  <small>{row.field.choices?.join(', ') ?? unitOf(row, units)}</small>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {Array.from({ length: lines }, (_, at) => (
              <tr key={at}>
                <th scope="row">{at + 1}</th>
                {columns.map((row) => (
                  <td key={row.field.id} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
