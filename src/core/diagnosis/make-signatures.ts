import { methodVersion } from '../judging/method-version';
import type { AnyKind } from '../contract/kind';
import { conditionWith, truthOf } from '../contract/model';
import { planOf } from '../contract/kind';
import { evaluateUnit, type UnitEvaluation } from '../judging/evaluate-unit';
import type { StepContext } from '../procedure/step-context';
import type { StepDefinition } from '../procedure/step-definition';
import { observe } from '../rig/observe';
import { characteristicRow } from '../quantities/characteristics';
import { inProportion, limitOf, measureOf, scaleOf, seenOf, type Measure, type Seen } from './figure';
import { soundTruth } from './sound-truth';
import type { Cell, FaultSignature, FigureSignature, SignatureTable } from './signature-table';

/** Severities at which a fault is tried; those between lie on the lines between. */
export const triedSeverities = [0.1, 0.35, 0.65, 1] as const;

/** A figure that moves less than this is not moved by a fault. */
const notMoved = 0.02;

/** What every step of a plan finds of a unit in a condition, without noise. `context.unit` is the unit of the sheet; `mounted` the one on the bench. */
export function observeUnit(
  kind: AnyKind,
  context: StepContext<unknown>,
  mounted: { readonly unit: unknown; readonly condition: unknown },
): UnitEvaluation {
  const { steps } = planOf(kind, context.plan);
  const definitions = steps.map((id) => kind.steps.find((step) => step.id === id)!);
  const evidence = definitions.flatMap((step: StepDefinition<unknown>) =>
    step.kind === 'look' ? [] : [{ kind: 'mixed' as const, step: step.id, given: [{ analysed: seenBy(step) }] }],
  );
  function seenBy(step: StepDefinition<unknown>) {
    return (here: StepContext<unknown>) =>
      observe(kind, step, here, mounted) ?? { characteristics: [], events: [], notes: [] };
  }
  return evaluateUnit(kind, steps, evidence, { context, policy: 'guarded' });
}

/** A characteristic of a step as one unit showed it. */
interface Shown {
  readonly step: string;
  readonly id: string;
  readonly measure: Measure | null;
  readonly seen: Seen | null;
}

const keyOf = (step: string, id: string) => `${step}: ${id}`;

function shownBy(
  kind: AnyKind,
  context: StepContext<unknown>,
  evaluation: UnitEvaluation,
  measures?: ReadonlyMap<string, Measure>,
): Map<string, Shown> {
  const truth = soundTruth(kind, context);
  const shown = new Map<string, Shown>();
  for (const step of evaluation.steps)
    for (const judged of step.characteristics) {
      const {
        found,
        limit,
        truth: known,
      } = inProportion({
        found: judged,
        limit: limitOf(step.checks, judged.id),
        truth: truthOf(truth, step.step, judged.id),
      });
      const key = keyOf(step.step, found.id);
      const speaks = characteristicRow(found.id).repeats === undefined;
      const measure = measures ? (measures.get(key) ?? null) : speaks ? measureOf(limit, known) : null;
      const scale = measure && scaleOf(measure, limit, known);
      const seen: Seen | null =
        found.kind === 'absent' ? { kind: 'absent' } : scale ? seenOf(found, scale, limit?.standard) : null;
      shown.set(key, { step: step.step, id: found.id, measure, seen });
    }
  return shown;
}

const mean = (values: readonly number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;

function standardOf(values: readonly number[]): number {
  if (values.length < 2) return 0;
  const middle = mean(values);
  return Math.sqrt(values.reduce((sum, each) => sum + (each - middle) ** 2, 0) / (values.length - 1));
}

const rounded = (value: number) => Number(value.toPrecision(3));

/** What several units that show a figure come to; a figure that one of them could not place counts as not there. */
function cellOf(seen: readonly (Seen | null | undefined)[]): Cell {
  const placed = seen.flatMap((each) => (each && each.kind !== 'absent' ? [each] : []));
  const share = (kind: Seen['kind']) => placed.filter((each) => each.kind === kind).length / seen.length;
  const measured = placed.filter((each) => each.kind === 'measured');
  const places = (measured.length > 0 ? measured : placed).map((each) => each.at);
  return {
    measured: rounded(share('measured')),
    above: rounded(share('above')),
    below: rounded(share('below')),
    at: places.length > 0 ? rounded(mean(places)) : 0,
    spread: rounded(standardOf(places)),
  };
}

const sameAs = (a: Cell, b: Cell) =>
  a.measured === b.measured &&
  a.above === b.above &&
  a.below === b.below &&
  Math.abs(a.at - b.at) < notMoved &&
  Math.abs(a.spread - b.spread) < notMoved;

/** A bench whose gauges say how late they read, as those that show what is there do not: whether a figure is told is the desk’s affair. */
function tellingAll<Unit>(context: StepContext<Unit>): StepContext<Unit> {
  const instruments = new Map(
    [...context.instruments].map(([channel, instrument]) => [channel, { ...instrument, lagSeconds: 0 }]),
  );
  return { ...context, instruments };
}

/** A bench with the example, or another unit of its kind, on it. */
export interface SurveyBench {
  readonly context: StepContext<unknown>;
}

/** All that a model does to a condition, and the method, as a text whose change makes a table stale. */
export function madeFrom(kind: AnyKind, unit: unknown): string {
  const conditions = kind.model.faults.flatMap((fault) =>
    triedSeverities.map((severity) => conditionWith(kind.model, unit, [{ id: fault.id, severity }])),
  );
  const scattered = kind.model.scatter.map((each) => each.apply(unit, 1));
  const text = JSON.stringify([methodVersion, unit, conditions, scattered], (_, value: unknown) =>
    typeof value === 'number' ? Number(value.toPrecision(6)) : value,
  );
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return (hash >>> 0).toString(16).padStart(8, '0');
}

/**
 * Works out what every fault of a kind does to every figure of a plan: every step is run without noise on units of several
 * sizes (the first bench carries the example sheet), sound, with each fault at each severity, and off by each scatter.
 */
export function makeSignatures(
  kind: AnyKind,
  benches: readonly [SurveyBench, ...SurveyBench[]],
  progress: (done: string) => void = () => undefined,
): SignatureTable {
  const [{ context }] = benches;
  const soundOf = (bench: SurveyBench) => kind.model.sound(bench.context.unit) as unknown;
  const look = (bench: SurveyBench, unit: unknown, condition: unknown, measures?: ReadonlyMap<string, Measure>) =>
    shownBy(kind, bench.context, observeUnit(kind, tellingAll(bench.context), { unit, condition }), measures);
  const first = look(benches[0], context.unit, soundOf(benches[0]));
  const measures = new Map([...first].flatMap(([key, { measure }]) => (measure ? [[key, measure] as const] : [])));
  const sound = benches.map((bench) => look(bench, bench.context.unit, soundOf(bench), measures));
  progress('sound');
  const keys = [...measures.keys()];
  const { scatter, faults } = kind.model;
  // A figure of which one size tells only that it lies beyond something, another may tell.
  const told = (each: ReadonlyMap<string, Shown>) => keys.filter((key) => each.get(key)?.seen?.kind === 'measured');
  const untold = keys.filter((key) => !told(sound[0]).includes(key));
  const second = sound.findIndex((each, at) => at > 0 && told(each).some((key) => untold.includes(key)));
  const scattered = second < 0 ? [benches[0]] : [benches[0], benches[second]];
  const moved = scatter.map((each) => {
    const ways = scattered.map((bench) =>
      [1, -1].map((z) => look(bench, each.apply(bench.context.unit, z), soundOf(bench), measures)),
    );
    progress(each.id);
    return keys.map((key) => {
      const told = ways.flatMap(([up, down]) => halfWay(up.get(key)?.seen, down.get(key)?.seen) ?? []);
      return told.length > 0 ? mean(told) : 0;
    });
  });
  const figures = keys.map((key, at): FigureSignature => {
    const seen = sound.map((each) => each.get(key)?.seen);
    return {
      step: first.get(key)!.step,
      id: first.get(key)!.id,
      measure: measures.get(key)!,
      sound: cellOf(seen),
      standard: rounded(median(seen.flatMap((each) => (each?.kind === 'measured' ? [each.standard] : [])))),
      scatter: moved.map((each) => rounded(each[at])),
    };
  });
  const signatures = faults.map((fault) => {
    const bySeverity: FaultSignature = triedSeverities.map((severity) => {
      const units = benches.map((bench) => {
        const { unit } = bench.context;
        return look(bench, unit, conditionWith(kind.model, unit, [{ id: fault.id, severity }]), measures);
      });
      return keys.map((key, at) => {
        const cell = cellOf(units.map((each) => each.get(key)?.seen));
        return sameAs(cell, figures[at].sound) ? null : cell;
      });
    });
    progress(fault.id);
    return [fault.id, bySeverity] as const;
  });
  return {
    family: kind.family,
    kind: kind.value,
    plan: context.plan,
    madeFrom: madeFrom(kind, context.unit),
    severities: triedSeverities,
    scatters: scatter.map((each) => each.id),
    figures,
    faults: Object.fromEntries(signatures),
  };
}

/** Half of what lies between a figure of a unit that is off one way and one that is off the other; null where one of them tells none. */
function halfWay(up: Seen | null | undefined, down: Seen | null | undefined): number | null {
  return up?.kind === 'measured' && down?.kind === 'measured' ? (up.at - down.at) / 2 : null;
}

function median(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted.length > 0 ? sorted[Math.floor(sorted.length / 2)] : 0;
}

/** What one unit on one bench shows of every figure of a table: the table's own work done once more for it. */
export function observeCells(
  kind: AnyKind,
  { context }: SurveyBench,
  table: Pick<SignatureTable, 'figures'>,
  mounted: { readonly unit: unknown; readonly condition: unknown },
): readonly Cell[] {
  const measures = new Map(table.figures.map(({ step, id, measure }) => [keyOf(step, id), measure] as const));
  const shown = shownBy(kind, context, observeUnit(kind, tellingAll(context), mounted), measures);
  return table.figures.map(({ step, id }) => cellOf([shown.get(keyOf(step, id))?.seen]));
}
