import { conclusionAdvice } from '@/core/wording/conclusion-text';
import { planOf } from '@/core/contract/kind';
import type { Conclusion } from '@/core/contract/plan';
import { concludeInquiry } from '@/core/judging/conclude-inquiry';
import type { UnitEvaluation } from '@/core/judging/evaluate-unit';
import type { Job } from '@/data/jobs';
import { sheetOf } from '../context/job-context';

/** Where the inquiry of a job's plan has ended; null while it is open, or for a plan that only measures. */
export function conclusionOf(
  job: Job,
  evaluation: UnitEvaluation,
): Pick<Conclusion, 'id' | 'title' | 'advice' | 'handsTo'> | null {
  const { kind } = sheetOf(job);
  const state = concludeInquiry(planOf(kind, job.plan), evaluation);
  if (state.kind === 'open') return null;
  const { id, title, handsTo } = state.conclusion;
  return { id, title, advice: conclusionAdvice(state.conclusion, state.felt, kind.steps), handsTo };
}
