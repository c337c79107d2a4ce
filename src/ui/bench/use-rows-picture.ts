'use client';
import { useColorScheme } from '@mui/material/styles';
import { useMemo } from 'react';
import { chartTokens } from '@/charts/chart-colours';
import { rowsOption, type ReadPoint } from '@/charts/rows-picture';
import { asDials } from '@/core/dials/default-dial';
import { expandedUncertainty, readingComponents } from '@/core/instruments/uncertainty';
import type { StepContext } from '@/core/procedure/step-context';
import type { TypedEntry, TypedField, TypedValues } from '@/core/procedure/typed-entry';
import { figure, shownUnit, type DisplayUnits } from '@/core/wording/display';

interface Read {
  readonly entry: TypedEntry<unknown>;
  readonly context: StepContext<unknown>;
  readonly values: TypedValues;
  readonly units: DisplayUnits;
}

/** Places along the band. */
const places = 60;

interface Columns {
  readonly x: TypedField;
  readonly y: TypedField;
}

/** The two columns that a table is drawn by: its first, and the first of the others whose sound readings follow from it. */
function columnsOf(
  fields: readonly TypedField[],
  probe: (x: TypedField, at: number) => readonly TypedField[],
): Columns | null {
  const [x, ...others] = fields.filter(({ row, choices }) => row?.at === 1 && !choices);
  if (!x) return null;
  const [, high] = x.plausible;
  const y = others.find(({ id }) => probe(x, high / 20).some((field) => field.id === id && field.expected !== null));
  return y ? { x, y } : null;
}

/** Rows of a table as points with their doubt, over where a sound unit's would lie; null where a table has no such band, or no row yet. */
export function useRowsPicture({ entry, context, values, units }: Read) {
  const { mode } = useColorScheme();
  return useMemo(() => {
    const probe = (x: TypedField, at: number) => entry.fields(context, { ...values, [x.id]: at });
    const columns = columnsOf(entry.fields(context, {}), (x, at) => entry.fields(context, { [x.id]: at }));
    if (!columns) return null;
    const { x, y } = columns;
    const dials = asDials(context.instruments);
    const about = (field: TypedField, value: number) => {
      const dial = dials.get(field.channel ?? '');
      return dial ? expandedUncertainty({ value, components: readingComponents(dial, value, context.date) }) : 0;
    };
    const points = Array.from({ length: places }, (_, at): ReadPoint[] => {
      const [readX, readY] = [x, y].map(({ id }) => values[id.replace('#1', `#${at + 1}`)]);
      return readX === undefined || readY === undefined
        ? []
        : [{ x: readX, y: readY, aboutX: about(x, readX), aboutY: about(y, readY) }];
    }).flat();
    if (points.length === 0) return null;
    const end = Math.max(...points.map((each) => each.x)) * 1.15;
    const band = Array.from({ length: places + 1 }, (_, at) => (end * at) / places).flatMap((at) => {
      const expected = probe(x, at).find(({ id }) => id === y.id)?.expected;
      return expected ? [{ x: at, low: Math.max(0, expected.low), high: expected.high }] : [];
    });
    const axis = (field: TypedField) => ({
      title: field.row?.heading ?? field.title,
      unit: shownUnit(field.as, units),
    });
    return {
      option: rowsOption({ points, band, x: axis(x), y: axis(y) }, chartTokens(mode)),
      text: `${points.length} rows read: ${points
        .map((each) => `${figure(each.x, axis(x).unit)} gives ${figure(each.y, axis(y).unit)}`)
        .join('; ')}`,
    };
  }, [entry, context, values, units, mode]);
}
