/** A caution; its text is in wording/cautions. */
export type CautionId =
  | 'fluid-jet'
  | 'never-loosen'
  | 'brake-fluid'
  | 'vacuum-exhaust'
  | 'stored-vacuum'
  | 'running-engine'
  | 'vehicle-still'
  | 'stored-pressure'
  | 'gas-sphere'
  | 'levelling-drops'
  | 'motor-duty'
  | 'dead-head'
  | 'wakes-by-itself'
  | 'service-mode'
  | 'fluid-not-mixed'
  | 'moving-lever'
  | 'rigid-stands';
