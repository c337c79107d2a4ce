'use client';
import { useColorScheme } from '@mui/material/styles';
import { chartTokens } from '@/charts/chart-colours';
import { overEachOtherOption, overEachOtherText, type LineOver } from '@/charts/over-each-other';
import { useShop } from '@/ui/shell/shop-context';
import { Chart } from '@/ui/charts/chart';
import styles from './findings.module.css';

/** Several times of one step over each other, on the same axes and the same scale. */
export function ComparedChart({ title, lines }: { readonly title: string; readonly lines: readonly LineOver[] }) {
  const { units } = useShop();
  const { mode, systemMode } = useColorScheme();
  const tokens = chartTokens(mode === 'system' ? systemMode : mode);
  const text = overEachOtherText(title, lines, units);
  return (
    <>
      <Chart className={styles.chart} option={overEachOtherOption(lines, units, tokens)} text={text} />
      {lines.some(({ line }) => line.found.length > 0) && (
        <p className={styles.marks}>Marks on a line are what the analysis found there: cut-in, run-out, a knee.</p>
      )}
    </>
  );
}
