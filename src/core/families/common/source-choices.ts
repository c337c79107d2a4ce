import type { SheetField } from '../family';

/** What makes the vacuum, as a sheet's field offers it. */
export const sourceChoices: SheetField['choices'] = [
  { value: 'manifold', title: 'Engine’s manifold' },
  { value: 'pump', title: 'Pump' },
];
