'use client';
import { useColorScheme } from '@mui/material/styles';
import { useMemo } from 'react';
import { kindOfSheet, defaultWorkshopLimits } from '@/core/families/registry';
import { toleranceBand } from '@/core/pictures/tolerance-band';
import type { Air } from '@/core/quantities/standard-atmosphere';
import { quantity, type AbsolutePressure } from '@/core/quantities/quantity';
import { Chart } from '@/ui/charts/chart';
import { chartTokens } from '@/charts/chart-colours';
import { curveAxes, curvePointText, curveTitle } from '@/charts/curve-axes';
import { rideTheLineOption } from '@/charts/ride-the-line';
import { useShop } from '@/ui/shell/shop-context';

interface Props {
  readonly familyId: string;
  readonly spec: unknown;
  readonly air: Air;
  readonly className: string;
}

const markTitles: Readonly<Record<string, string>> = { 'cut-in': 'Cut-in', 'jump-in': 'Jump-in', 'run-out': 'Run-out' };

/** The band and key points that a sheet's figures give with what feeds the unit in today's air. */
export function SheetCurve({ familyId, spec, air, className }: Props) {
  const { units } = useShop();
  const { mode } = useColorScheme();
  const drawn = useMemo(() => {
    const kind = kindOfSheet({ family: familyId, spec });
    const parsed = kind?.sheet.schema.safeParse(spec);
    if (!kind || !parsed?.success) return null;
    const unit: unknown = kind.sheet.prepare(parsed.data);
    const ambient = {
      pressure: quantity<AbsolutePressure>(air.pressure),
      source: 'station-barometer',
      questionedBy: null,
    } as const;
    const supply = kind.plans[0].supply?.at(unit, ambient) ?? 0;
    const band = toleranceBand(kind.curve, unit, () => supply, {
      ambient,
      airTemperature: air.temperature,
      workshopLimits: defaultWorkshopLimits,
    });
    const axes = curveAxes(kind.curve, units);
    const marks = band.curve.keyPoints.flatMap((point) =>
      markTitles[point.id]
        ? [
            {
              title: markTitles[point.id],
              detail: curvePointText(axes, point.input, point.output),
              at: [point.input, point.output] as const,
            },
          ]
        : [],
    );
    const option = rideTheLineOption(
      { band, pull: [], wayBack: [], now: null, marks },
      { ...axes, tokens: chartTokens(mode), size: 'panel' },
    );
    return {
      option,
      text: `Expected ${curveTitle(kind).toLowerCase()}. ${marks.map((mark) => `${mark.title}: ${mark.detail}`).join('. ')}.`,
    };
  }, [familyId, spec, air, units, mode]);
  return drawn ? <Chart option={drawn.option} text={drawn.text} className={className} /> : null;
}
