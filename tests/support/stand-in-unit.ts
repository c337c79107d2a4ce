import { findFamily, kindNamed } from '@/core/families';
import { planOf, type AnyKind } from '@/core/contract/kind';
import type { ActiveFault } from '@/core/physics/plant';
import type { StepAnalysis } from '@/core/procedure/step-analysis';
import type { PlanId, StepContext } from '@/core/procedure/step-context';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { contextAt, type Site } from '@/core/formats/site-file';
import { checkSpec } from '@/core/formats/unit-sheet';
import {
  evaluateStep,
  evaluateUnit,
  type StepEvaluation,
  type StepEvidence,
  type UnitEvaluation,
} from '@/core/judging/evaluate-unit';
import type { StepVerdict } from '@/core/vocabulary/verdict';
import { readStandIn, simulateStep, type StandInSetting } from '@/core/rig/run-step';
import type { Trace } from '@/core/traces/trace';

/** A unit on the stand-in, ready to be simulated and judged step by step. */
export interface StandInUnit<Unit> {
  readonly kind: AnyKind;
  readonly unit: Unit;
  readonly context: StepContext<Unit>;
  /** What the instruments record of a measured step. */
  trace(step: string, faults?: readonly ActiveFault[], setting?: Partial<StandInSetting>): Trace;
  run(step: string, faults?: readonly ActiveFault[], setting?: Partial<StandInSetting>): StepAnalysis;
  /** Runs one measured step and judges it by itself. */
  judgeStep(step: string, faults?: readonly ActiveFault[]): StepEvaluation;
  /** Verdict of a typed step on what the stand-in's gauges show. */
  typedVerdict(step: string, faults?: readonly ActiveFault[]): StepVerdict;
  /** Runs every measured step of the plan and judges the unit; looks are given as `findings`. */
  judge(faults?: readonly ActiveFault[], findings?: Readonly<Record<string, Record<string, string>>>): UnitEvaluation;
}

/** The example of a family (with changes) on one of its stands, 1,420 m up unless the site says otherwise. */
export function standInUnit<Unit>(
  familyId: string,
  plan: PlanId,
  how: { readonly spec?: object; readonly site?: Site; readonly layout?: string } = {},
): StandInUnit<Unit> {
  const { example } = kindNamed(familyId, how.layout).sheet;
  const spec: unknown = { ...(example.spec as object), ...how.spec };
  const checked = checkSpec(findFamily(familyId)!, example.name, spec, 'test');
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  // The kind that the sheet says.
  const { kind } = checked.value;
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600, ...how.site };
  const context = contextAt(checked.value, site, '2026-11-24', plan);
  const measuredStep = (id: string): MeasuredStep<unknown> => {
    const step = kind.steps.find((each) => each.id === id);
    if (step?.kind !== 'measured') throw new Error(`${id} is not measured`);
    return step;
  };
  const trace = (id: string, faults: readonly ActiveFault[] = [], setting: Partial<StandInSetting> = {}) =>
    simulateStep(kind, measuredStep(id), context, { faults, benchSeed: 3, runSeed: 5, ...setting });
  return {
    kind,
    unit: context.unit as Unit,
    context: context as StepContext<Unit>,
    trace,
    run: (id, faults = [], setting = {}) => measuredStep(id).analyse(trace(id, faults, setting), context),
    judgeStep: (id, faults = []) => {
      const step = measuredStep(id);
      return evaluateStep(kind, step, [{ analysed: () => step.analyse(trace(id, faults), context) }], {
        context,
        policy: 'guarded',
      });
    },
    typedVerdict: (id, faults = []) => {
      const step = kind.steps.find((each) => each.id === id);
      if (step?.kind !== 'typed') throw new Error(`${id} is not typed`);
      const readings = readStandIn(kind, step, context, { faults, seed: 5 });
      return evaluateStep(kind, step, [{ readings, standIn: true }], { context, policy: 'guarded' }).verdict;
    },
    judge(faults = [], findings = {}) {
      const { steps } = planOf(kind, plan);
      const evidence = steps.flatMap((id): StepEvidence[] => {
        const step = kind.steps.find((each) => each.id === id);
        if (step?.kind === 'measured') return [{ kind: 'traces', step: id, traces: [trace(id, faults)] }];
        return findings[id] ? [{ kind: 'findings', step: id, findings: findings[id] }] : [];
      });
      return evaluateUnit(kind, steps, evidence, { context, policy: 'guarded' });
    },
  };
}

/** Value of a measured characteristic, or why there is none. */
export function valueOf(analysis: StepAnalysis, id: string): number | string {
  const found = analysis.characteristics.find((each) => each.id === id);
  if (!found) return 'not reported';
  return found.kind === 'measured' ? found.estimate.value : found.problem.code;
}
