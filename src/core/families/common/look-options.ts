import type { LookOption } from '../look-step';

/** What is looked over: in order, worth a note, or unfit. */
export const inOrderOptions: readonly LookOption[] = [
  { id: 'in-order', title: 'In order', effect: 'pass' },
  { id: 'note', title: 'To note', effect: 'note' },
  { id: 'unfit', title: 'Unfit', effect: 'fail' },
];

/** What is looked at under pressure: dry, damp or dripping. */
export const leakOptions: readonly LookOption[] = [
  { id: 'dry', title: 'Dry', effect: 'pass' },
  { id: 'damp', title: 'Damp', effect: 'note' },
  { id: 'dripping', title: 'Dripping', effect: 'fail' },
];
