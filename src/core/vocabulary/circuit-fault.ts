/** A fault of a charging circuit that the pump's cycles alone can tell. */
export type CircuitFaultId =
  'precharge-low' | 'internal-leak' | 'pump-weak' | 'switch-low' | 'switch-high' | 'switch-band-narrow';
