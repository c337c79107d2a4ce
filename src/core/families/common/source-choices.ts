import type { SheetField } from '../../contract/sheet-field';

/** What makes the vacuum, as a sheet's field offers it. */
export const sourceChoices: SheetField['choices'] = [
  { value: 'manifold', title: 'Engine’s manifold' },
  { value: 'pump', title: 'Pump' },
];
