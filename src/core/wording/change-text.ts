import { expandedUncertainty } from '../instruments/uncertainty';
import type { Change } from '../judging/changes';
import type { Characteristic } from '../procedure/step-analysis';
import type { MeasurementUnit } from '../quantities/measurement-unit';
import { shownAs } from '../quantities/shown-as';
import { figure, shownUnit, foundSize, type DisplayUnits } from './display';

function withSymbol(text: string, { symbol }: MeasurementUnit): string {
  return symbol === '1' ? text : `${text} ${symbol}`;
}

/** A characteristic in few words: its value with U, what it lies beyond, or that nothing was found. */
export function readingShortText(found: Characteristic, units: DisplayUnits): string {
  const unit = shownUnit(shownAs(found.id), units, foundSize(found));
  switch (found.kind) {
    case 'measured':
      return withSymbol(figure(found.estimate.value, unit, expandedUncertainty(found.estimate)), unit);
    case 'beyond':
      return withSymbol(`${found.side} ${figure(found.bound.value, unit)}`, unit);
    case 'absent':
      return 'not found';
  }
}

/** "−11.3 ± 0.4 kPa", and whether that is more than its U. */
export function differenceText({ id, difference, moved }: Change, units: DisplayUnits): string {
  if (!difference) return moved ? 'not to be subtracted' : 'none';
  const unit = shownUnit(shownAs(id), units, difference.value);
  // A difference has no offset: degrees apart are degrees.
  const text = figure(difference.value + unit.offset, unit, difference.expanded);
  const signed = difference.value > 0 ? `+${text}` : text;
  return `${withSymbol(signed, unit)}${moved ? '' : ', within its U'}`;
}
