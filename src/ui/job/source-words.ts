import type { UncertaintySource } from '@/core/instruments/uncertainty';

/** Where a standard uncertainty comes from, for the opened arithmetic. */
export const sourceWords: Readonly<Record<UncertaintySource, string>> = {
  fit: 'scatter about the fitted line',
  noise: 'noise',
  resolution: 'resolution',
  'gauge-zero': 'zero of the gauge',
  'gauge-gain': 'gain of the gauge',
  'gauge-linearity': 'linearity of the gauge',
  model: 'the law a figure is carried on by',
  'gauge-stability': 'drift of the gauge while it was watched',
  'pair-gain': 'gain between the two gauges',
  'pair-offset': 'offset between the two gauges',
  counting: 'a stroke close to the threshold',
  'force-match': 'the two forces were not quite alike',
  'reserve-left': 'what may have been left of the reserve',
  timing: 'timing and lag',
  volume: 'volume',
  temperature: 'temperature of the gas',
  'gas-heat': 'heat that the gas has taken or given',
  repeats: 'scatter of the repeats',
};
