import { methodVersion } from '@/core/judging/method-version';
import { type UnitEvaluation } from '@/core/judging/evaluate-unit';
import { verdictWords } from '@/core/wording/verdict-words';
import { recordAct } from '@/data/acts';
import type { Job } from '@/data/jobs';
import { sheetOf } from '../context/job-context';

/** Puts on record which steps of a job another method judges otherwise than the one before; issued papers stay as they are. */
export async function sayRejudged(job: Job, before: UnitEvaluation, now: UnitEvaluation): Promise<void> {
  const { kind } = sheetOf(job);
  const changed = now.steps.flatMap(({ step, verdict }) => {
    const was = before.steps.find((each) => each.step === step)?.verdict;
    if (was === undefined || was === verdict) return [];
    const title = kind.steps.find((each) => each.id === step)?.title ?? step;
    return [`${title} was ${verdictWords[was].toLowerCase()}, is ${verdictWords[verdict].toLowerCase()}`];
  });
  if (changed.length === 0) return;
  await recordAct({
    jobId: job.id,
    subject: null,
    act: 'rejudged',
    person: `Method ${methodVersion}`,
    detail: changed.join('; '),
  });
}
