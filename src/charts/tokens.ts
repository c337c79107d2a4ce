/** Colours of the two modes. Verdict tones are used for verdicts and nothing else. */
export interface Tokens {
  readonly ground: string;
  readonly panel: string;
  readonly ink: string;
  readonly softInk: string;
  readonly line: string;
  readonly band: string;
  readonly bandEdge: string;
  readonly measured: string;
  readonly wayBack: string;
  readonly pass: string;
  readonly fail: string;
  readonly undecided: string;
  readonly action: string;
  readonly actionInk: string;
  /** Strip of actions at the foot of the Bench and the rail: darkest surface of the mode. */
  readonly deep: string;
  readonly deepInk: string;
  readonly deepSoftInk: string;
}

export const day: Tokens = {
  ground: '#E9EDEE',
  panel: '#FBFCFC',
  ink: '#12201F',
  softInk: '#4C5E60',
  line: '#C3CDCE',
  band: '#BFD8D6',
  bandEdge: '#4B8B88',
  measured: '#1B2FA8',
  wayBack: '#7D4CA9',
  pass: '#0A6E5C',
  fail: '#B92C18',
  undecided: '#7D5200',
  action: '#F2C230',
  actionInk: '#12201F',
  deep: '#12201F',
  deepInk: '#E9EDEE',
  deepSoftInk: '#B4C2C3',
};

export const dim: Tokens = {
  ground: '#0E1516',
  panel: '#162022',
  ink: '#E4EDEC',
  softInk: '#9DAFB1',
  line: '#2E3C3F',
  band: '#1F3F40',
  bandEdge: '#4F8F8C',
  measured: '#9DB4FF',
  wayBack: '#CDA5F0',
  pass: '#4FC6AB',
  fail: '#FF8A75',
  undecided: '#E9B657',
  action: '#F2C230',
  actionInk: '#12201F',
  deep: '#060A0B',
  deepInk: '#E4EDEC',
  deepSoftInk: '#9DAFB1',
};
