import type { LampChannel, LampMeaning } from '../../vocabulary/drive-problem';

export const lampChannels: readonly LampChannel[] = ['lamp_red', 'lamp_amber', 'lamp_abs', 'lamp_stability', 'buzzer'];

/** What is lit together, and what it can mean. The first line that holds speaks; red: brake trouble, lever or level; amber: a fault that leaves the brakes; the buzzer: the store. */
const table: readonly (readonly [lit: readonly LampChannel[], meanings: readonly LampMeaning[]])[] = [
  [
    ['lamp_red', 'lamp_amber', 'lamp_abs', 'lamp_stability', 'buzzer'],
    ['bulb-check', 'network-down', 'store-pressure'],
  ],
  [
    ['lamp_red', 'lamp_amber', 'lamp_abs', 'lamp_stability'],
    ['bulb-check', 'network-down'],
  ],
  [['lamp_red', 'buzzer'], ['store-pressure']],
  [['lamp_red', 'lamp_abs'], ['pressure-split']],
  [
    ['lamp_red', 'lamp_amber'],
    ['store-pressure', 'brake-trouble'],
  ],
  [['lamp_red'], ['brake-trouble']],
  [['buzzer'], ['store-pressure']],
  [
    ['lamp_abs', 'lamp_stability'],
    ['wheel-speed', 'slip-control-off'],
  ],
  [['lamp_abs'], ['slip-control-off', 'wheel-speed']],
  [['lamp_stability'], ['stability-sensor']],
  [['lamp_amber'], ['system-fault']],
];

/** What it can mean that these were lit together: of the lines that ask for nothing that was dark, the one that asks for most; with amber beside others, what amber says too. */
export function meaningsOf(lit: readonly LampChannel[]): readonly LampMeaning[] {
  const [first] = table.filter(([asked]) => asked.every((lamp) => lit.includes(lamp)));
  if (!first) return [];
  const [asked, meanings] = first;
  const left = lit.filter((lamp) => !asked.includes(lamp));
  const more = left.length > 0 && left.length < lit.length ? meaningsOf(left) : [];
  return [...new Set([...meanings, ...more])];
}
