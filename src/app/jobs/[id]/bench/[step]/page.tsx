import { notFound } from 'next/navigation';
import { kindOfSheet, findStep } from '@/core/families';
import type { AnyKind } from '@/core/contract/kind';
import type { StepDefinition } from '@/core/procedure/step-definition';
import { airText } from '@/server/shop/air-text';
import { jobViewIfThere, type JobView } from '@/server/views/job-view';
import { shopOfPage } from '@/server/shop/shop-of-page';
import { standInLooks } from '@/server/context/stand-in-looks';
import { LogBench, LookBench, MeasuredBench, TypedBench, WorkedOutBench } from '@/ui/bench/bench-by-feed';
import { PageTitle } from '@/ui/shell/page-title';
import { ShownVersion } from '@/ui/shell/shown-version';

export default async function BenchPage({ params, searchParams }: PageProps<'/jobs/[id]/bench/[step]'>) {
  const [{ id, step: stepId }, { by }] = await Promise.all([params, searchParams]);
  const view = await jobViewIfThere(id);
  const kind = view && kindOfSheet(view.job.sheet);
  const step = kind && findStep(kind, stepId);
  if (!view || !step) notFound();
  return (
    <>
      <PageTitle of={`${step.title}, ${view.job.serial}`} />
      <ShownVersion version={view.job.version} />
      {await benchOf({ view, kind, step, by })}
    </>
  );
}

interface Asked {
  readonly view: JobView;
  readonly kind: AnyKind;
  readonly step: StepDefinition<unknown>;
  /** How the step is fed: live where nothing else is asked for. */
  readonly by: string | string[] | undefined;
}

/** The bench of a step. A new step is a new bench: nothing of the last one's run may linger. */
async function benchOf({ view, kind, step, by }: Asked) {
  const shop = await shopOfPage();
  const { site } = shop;
  const { policy } = shop.settings;
  const air = airText(shop);
  const { id } = step;
  if (step.kind === 'look') {
    const appearance = await standInLooks(view.job, view.repairs, kind);
    return <LookBench key={id} view={view} step={id} air={air} appearance={appearance} />;
  }
  if (step.kind === 'typed' && step.workedOut) return <WorkedOutBench key={id} view={view} step={id} air={air} />;
  const props = { view, step: id, site, date: new Date().toISOString(), air };
  if (step.kind === 'typed' || by === 'dial') return <TypedBench key={`${id} dial`} {...props} policy={policy} />;
  if (by === 'log' || !step.feeds.live) return <LogBench key={`${id} log`} {...props} policy={policy} />;
  return <MeasuredBench key={id} {...props} />;
}
