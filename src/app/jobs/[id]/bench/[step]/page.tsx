import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { familyOfSheet, findStep } from '@/core/families';
import { findJob } from '@/data/jobs';
import { readShopSettings } from '@/data/settings';
import { airText } from '@/server/jobs/air-text';
import { siteNow } from '@/server/jobs/job-context';
import { jobView } from '@/server/jobs/job-view';
import { LookBench } from '@/ui/bench/look-bench';
import { LogBench } from '@/ui/bench/log-bench';
import { TypedBench } from '@/ui/bench/typed-bench';
import { MeasuredBench } from '@/ui/bench/measured-bench';

export const metadata: Metadata = { title: 'Bench' };

export default async function BenchPage({ params, searchParams }: PageProps<'/jobs/[id]/bench/[step]'>) {
  const [{ id, step: stepId }, { by }] = await Promise.all([params, searchParams]);
  const job = await findJob(id);
  const family = job && familyOfSheet(job.sheet);
  const step = family && findStep(family, stepId);
  if (!job || !step) notFound();
  const [view, site, air, { policy }] = await Promise.all([jobView(id), siteNow(), airText(), readShopSettings()]);
  // A new step is a new bench: nothing of the last one's run may linger.
  if (step.kind === 'look') {
    const mounted = family.faults.filter((fault) => job.standIn.faults.some((active) => active.id === fault.id));
    const appearance = Object.assign({}, ...mounted.map((fault) => fault.appearance)) as Record<string, string>;
    return <LookBench key={stepId} view={view} step={stepId} air={air} appearance={appearance} />;
  }
  const props = { view, step: stepId, site, date: new Date().toISOString(), air };
  if (step.kind === 'typed' || by === 'dial') return <TypedBench key={`${stepId} dial`} {...props} policy={policy} />;
  if (by === 'log') return <LogBench key={`${stepId} log`} {...props} policy={policy} />;
  return <MeasuredBench key={stepId} {...props} />;
}
