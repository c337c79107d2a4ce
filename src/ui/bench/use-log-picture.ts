'use client';
import { useColorScheme } from '@mui/material/styles';
import { useMemo } from 'react';
import { chartTokens } from '@/charts/chart-colours';
import { stepPicture } from '@/charts/step-picture';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { readFrame } from '@/core/traces/frame';
import { growingFrom, type GrowingTrace } from '@/core/traces/trace';
import { useShop } from '@/ui/shell/shop-context';
import type { useBenchContext } from './use-bench-context';
import type { LogState } from './use-log-worker';

const noSamples: GrowingTrace = { time: [], columns: {} };

/** The thinned samples that the log worker sends. */
function previewOf(bytes: ArrayBuffer): GrowingTrace {
  const read = readFrame(new Uint8Array(bytes));
  return read.kind === 'frame' ? growingFrom(read.frame.samples) : noSamples;
}

/** A log over what it should be: that is drawn as soon as the columns are known, the log comes over it when it is judged. */
export function useLogPicture(
  { kind, context }: ReturnType<typeof useBenchContext>,
  step: MeasuredStep<unknown>,
  state: LogState,
) {
  const { units } = useShop();
  const { mode } = useColorScheme();
  const mapped = state.kind === 'mapped';
  const judged = mapped ? state.judged : null;
  return useMemo(() => {
    if (!mapped) return null;
    return stepPicture({
      kind,
      step,
      context,
      samples: judged ? previewOf(judged.preview) : noSamples,
      readings: {},
      bands: step.feeds.live?.bands(context, {}) ?? {},
      result: judged?.result ?? null,
      running: false,
      watched: null,
      seconds: 0,
      units,
      tokens: chartTokens(mode),
    });
  }, [mapped, judged, kind, step, context, units, mode]);
}
