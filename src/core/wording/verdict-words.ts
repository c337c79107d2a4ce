export const verdictWords = {
  pass: 'Pass',
  fail: 'Fail',
  undecided: 'Undecided',
  recorded: 'Recorded',
  'not-run': 'Not run',
  incomplete: 'Incomplete',
} as const;
