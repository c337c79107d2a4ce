'use client';
import { useMemo } from 'react';
import { findFamily } from '@/core/families/registry';
import { planOf } from '@/core/contract/kind';
import { contextAt, type Site } from '@/core/formats/site-file';
import { checkSpec } from '@/core/formats/unit-sheet';
import { correctionsBefore } from '@/core/judging/evaluate-unit';
import type { JobView } from '@/server/views/job-view';

/** Family, unit and context of a bench step, made in the browser from the job and the site. */
export function useBenchContext(view: JobView, stepId: string, site: Site, date: string) {
  return useMemo(() => {
    const { sheet } = view.job;
    const known = findFamily(sheet.family);
    const checked = known ? checkSpec(known, sheet.name, sheet.spec, 'sheet') : null;
    if (!checked?.ok) throw new Error(`the sheet of job ${view.job.number} cannot be read`);
    const { kind } = checked.value;
    const corrections = correctionsBefore(
      view.steps.map((step) => step.evaluation),
      stepId,
    );
    const context = { ...contextAt(checked.value, site, date, view.job.plan), corrections };
    const { lever } = planOf(kind, context.plan);
    return { kind, context, lever: lever && { channel: lever.channel, maximum: lever.maximum(context.unit) } };
  }, [view, stepId, site, date]);
}
