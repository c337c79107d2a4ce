import type { AnyKind } from '@/core/contract/kind';
import type { Ledger } from '@/core/diagnosis/ledger';
import type { Report } from '@/core/formats/report';
import { changesOf } from '@/core/judging/changes';
import { characteristicTitle } from '@/core/quantities/characteristics';
import { differenceText, readingShortText } from '@/core/wording/change-text';
import type { DisplayUnits } from '@/core/wording/display';
import { extentText, findingText, hypothesisTitle, probabilityText, strongest } from '@/core/wording/ledger-text';
import { proofText, workText } from '@/core/wording/repair-text';
import type { JobEvaluation } from '../judging/evaluate-job';
import type { VerificationState } from '@/core/judging/verification';

/** Findings below this are of no use to who reads a paper. */
const worthPrinting = 0.05;

/** What may be the matter, for a paper; nothing where nothing most likely is, or nothing was found yet. */
export function findingsOf(
  kind: AnyKind,
  ledger: Ledger | null,
  { evaluation }: Pick<JobEvaluation, 'evaluation'>,
  units: DisplayUnits,
): Report['findings'] {
  const head = ledger?.rows[0];
  const measured = evaluation.steps.some((step) => step.verdict !== 'not-run');
  if (!ledger || !measured || head?.hypothesis.kind === 'no-fault') return [];
  return ledger.rows
    .filter((row) => row.probability >= worthPrinting)
    .map((row) => ({
      title: hypothesisTitle(kind, row.hypothesis),
      probability: probabilityText(row.probability, ledger),
      reasons: [
        ...row.extents.map((extent) => extentText(extent, units)),
        ...strongest(row, 3).map(({ finding, decibans }) => {
          const { title, said } = findingText(kind, finding, evaluation.steps, units);
          return `${decibans > 0 ? 'For' : 'Against'} it: ${title}: ${said}`;
        }),
      ],
    }));
}

/** What was done to a unit, how far it is proved, and what it changed. */
export function repairsOf(
  kind: AnyKind,
  { evaluation, past, due, repairs }: Pick<JobEvaluation, 'evaluation' | 'past' | 'due' | 'repairs'>,
  verification: VerificationState,
  units: DisplayUnits,
): Pick<Report, 'repairs' | 'proof' | 'changes'> {
  const titleOf = (id: string) => kind.steps.find((step) => step.id === id)?.title ?? id;
  const again = evaluation.steps.filter(({ step }) => due.some((each) => each.step === step));
  return {
    repairs: repairs.map((repair) => ({
      who: repair.person,
      when: repair.at,
      work: repair.work.filter(({ action }) => action !== 'left').map((work) => workText(kind, work)),
      note: repair.note,
    })),
    proof: proofText(verification, titleOf),
    changes: changesOf(past.at(-1)?.evaluation.steps ?? [], again)
      .filter((change) => change.moved)
      .map((change) => ({
        step: titleOf(change.step),
        name: characteristicTitle(change.id),
        before: readingShortText(change.before, units),
        after: readingShortText(change.after, units),
        change: differenceText(change, units),
      })),
  };
}
