/** Cells that stand for no reading (−9999, --), words of a switch, or a clock that ran on over midnight or a change of the hour. */
export interface LogNotice {
  readonly column: number;
  readonly what: 'missing' | 'states' | 'clock-rolled' | 'thousands';
  readonly times: number;
}
