import type { CurvePicture } from '@/core/procedure/picture';
import type { AnyKind } from '@/core/contract/kind';
import { figure, referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import { shownAs } from '@/core/quantities/shown-as';
import { channelTitle } from '@/core/quantities/channels';
import type { CurveAxis } from './ride-the-line';

function axisOf(channel: string, units: DisplayUnits): CurveAxis {
  const as = shownAs(channel);
  return { title: channelTitle(channel), unit: shownUnit(as, units), reference: referenceOf(as) };
}

/** Axes of a curve in the shop's measurement units. */
export function curveAxes(
  { input, outputs }: Pick<CurvePicture<unknown>, 'input' | 'outputs'>,
  units: DisplayUnits,
): { input: CurveAxis; output: CurveAxis } {
  return { input: axisOf(input, units), output: axisOf(outputs[0], units) };
}

/** A point of the curve in words; of one where the output leaves nothing, its input says it all. */
export function curvePointText({ input, output }: ReturnType<typeof curveAxes>, x: number, y: number): string {
  if (y === 0) return `${figure(x, input.unit)} ${input.unit.symbol}`;
  return input.unit.symbol === output.unit.symbol
    ? `${figure(x, input.unit)} in, ${figure(y, output.unit)} out`
    : `${figure(x, input.unit)} ${input.unit.symbol}, ${figure(y, output.unit)} ${output.unit.symbol}`;
}

/** What the decisive curve of a family is called: the step that draws it. */
export function curveTitle(kind: AnyKind): string {
  const { face } = kind.plans[0];
  return kind.steps.find((step) => step.id === face)?.title ?? kind.title;
}
