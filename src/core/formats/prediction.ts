import { planOf, type AnyKind } from '../contract/kind';
import type { Supply } from '../contract/plan';
import type { StepContext } from '../procedure/step-context';
import { noCorrections } from '../procedure/step-analysis';
import { findChannel } from '../quantities/channels';
import { characteristicRow, openName } from '../quantities/characteristics';
import { fromSi, unitOf } from '../quantities/measurement-unit';
import { limitSourceText } from '../wording/check-text';

const kilopascal = (si: number) => Number((si / 1e3).toPrecision(8));

/** Symbols that are no part of a name. */
const spelledOut: Readonly<Record<string, string>> = { 'km/h': 'Kmh', '%': 'Percent' };

/** Name of an axis in the file and its figures: `inputKpa` of a pressure curve, `rodForceN` of an assist curve. */
function axisOf(channel: string): { readonly name: string; readonly shown: (si: number) => number } {
  const unit = unitOf(channel === 'time' ? 's' : (findChannel(channel)?.fileUnit ?? '1'));
  const plain = channel.replace(/_pressure$/, '').replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase());
  const suffix = spelledOut[unit.symbol] ?? unit.symbol.charAt(0).toUpperCase() + unit.symbol.slice(1).toLowerCase();
  return { name: `${plain}${suffix}`, shown: (si) => Number(fromSi(si, unit).toPrecision(8)) };
}

/** What feeds a unit, under the name of its kind; nothing where nothing does. */
function suppliedAs(kind: Supply<unknown>['kind'] | undefined, supply: number): object {
  switch (kind) {
    case 'vacuum':
      return { supplyVacuumKpa: kilopascal(supply) };
    case 'pressure':
      return { supplyPressureKpa: kilopascal(supply) };
    case 'voltage':
      return { supplyVoltageV: Number(supply.toPrecision(8)) };
    case undefined:
      return {};
  }
}

/** Expected curve, key points and limits of a unit at a supply (SI of its kind) at a site, as JSON data. */
export function writePrediction(kind: AnyKind, context: StepContext<unknown>, supply: number): object {
  const curve = kind.curve.expected(context.unit, supply, context);
  const [input, output] = [kind.curve.input, kind.curve.outputs[0]].map(axisOf);
  const point = (at: { input: number; output: number }) => ({
    [input.name]: input.shown(at.input),
    [output.name]: output.shown(at.output),
  });
  const empty = { characteristics: [], events: [], notes: [], supply };
  return {
    format: 'hard-pedal/prediction',
    version: 1,
    family: kind.family,
    ambientKpa: kilopascal(context.ambient.pressure),
    ambientSource: context.ambient.source,
    ...suppliedAs(planOf(kind, context.plan).supply?.kind, supply),
    apply: curve.apply.map(point),
    wayBack: curve.wayBack.map(point),
    keyPoints: curve.keyPoints.map(({ id, ...at }) => ({ id, ...point(at) })),
    tolerancePercent: Number((curve.tolerance * 100).toPrecision(6)),
    limits: kind.steps.flatMap((step) => {
      if (step.kind === 'look') return [];
      return step.limits(empty, { ...context, corrections: noCorrections }).map((limit) => {
        const unit = unitOf(characteristicRow(limit.characteristic).unit);
        const shown = (si: number | null) => (si === null ? null : Number((si / unit.factor).toPrecision(8)));
        return {
          step: step.id,
          characteristic: openName(limit.characteristic),
          unit: unit.symbol,
          low: shown(limit.low),
          high: shown(limit.high),
          expected: shown(limit.expected),
          source: limitSourceText(limit.source),
        };
      });
    }),
  };
}
