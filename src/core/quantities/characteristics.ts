/** One table: characteristic id → unit in open files. Everything else derives its unit from here. */
export const characteristicUnits = {
  'switch-close-pressure': 'kPa',
  'switch-open-pressure': 'kPa',
  'pair-offset': 'kPa',
  'pair-gain': '1',
  'output-decay-rate': 'kPa/min',
  'input-creep': 'kPa/min',
  'input-decay-rate': 'kPa/min',
  'draw-time': 's',
  'rest-difference': 'kPa',
  'vacuum-loss': 'kPa',
  'leak-flow': 'cm3/min',
  'cut-in-pressure': 'kPa',
  'valve-opening-pressure': 'kPa',
  'boost-slope': '1',
  'run-out-input': 'kPa',
  'run-out-output': 'kPa',
  'boost-ratio': '1',
  'servo-slope': 'N/kPa',
  'servo-force': 'N',
  'run-out-servo-force': 'N',
  'servo-residual': 'N',
  'vacuum-pair-offset': 'kPa',
  hysteresis: 'kPa',
  'control-remainder': 'kPa',
  'supply-sag': 'kPa',
  'residual-output': 'kPa',
  'release-time': 's',
  'reverse-leak': 'kPa',
  'cut-in-force': 'N',
  'jump-in-output': 'kPa',
  'force-slope': 'kPa/N',
  'run-out-force': 'N',
  'force-hysteresis': 'N',
  'unassisted-slope': 'kPa/N',
  'assisted-applications': '1',
  'vacuum-per-application': 'kPa',
  'rod-gap': 'mm',
  'idle-vacuum': 'kPa',
  'held-vacuum': 'kPa',
  'pedal-sink': 'mm',
  'soak-loss': 'kPa',
  'vehicle-ratio': '1',
  'pump-speed': 'L/min',
  'ultimate-pressure': 'kPa',
  'pump-cut-in': 'kPa',
  'pump-cut-out': 'kPa',
  'run-time': 's',
  'rest-time': 's',
  'dead-pressure': 'kPa',
  'supply-drop': 'V',
  'run-current': 'A',
  precharge: 'kPa',
  'charge-time': 's',
  'store-cut-in': 'kPa',
  'store-cut-out': 'kPa',
  'internal-leak-flow': 'cm3/min',
  'lamp-pressure': 'kPa',
  'half-life': 's',
  'precharge-2': 'kPa',
  'charge-time-2': 's',
  'store-cut-in-2': 'kPa',
  'store-cut-out-2': 'kPa',
  'internal-leak-flow-2': 'cm3/min',
  'lamp-pressure-2': 'kPa',
  'half-life-2': 's',
  'dead-pressure-2': 'kPa',
  'run-time-2': 's',
  'rest-time-2': 's',
  'assisted-applications-2': '1',
  'levelling-leak-flow': 'cm3/min',
  'height-loss': 'mm',
  'bump-pressure': 'kPa',
  'metering-slope': 'kPa/N',
  'circuit-difference': 'kPa',
  'cut-in-travel': '°',
  'modulation-slope': 'kPa/°',
  'regulated-maximum': 'kPa',
  'angle-hysteresis': '°',
  'rise-time': 's',
  'rise-time-2': 's',
  'front-residual': 'kPa',
  'rear-residual': 'kPa',
  'neutral-leak-flow': 'cm3/min',
  'alarm-pressure': 'kPa',
  'parking-release-pressure': 'kPa',
  'relief-pressure': 'kPa',
  'pump-flow': 'L/min',
  'store-soak-loss': 'kPa',
  'return-pressure': 'kPa',
  'boost-sag': 'kPa',
} as const;

/**
 * Name in open files where it differs: a force–pressure curve has a boost slope and a hysteresis too, but in other
 * units than a pressure–pressure curve, and one id has one unit in here. A second circuit's are named with -2, like its
 * channels.
 */
const openNames: Partial<Record<CharacteristicId, string>> = {
  'force-slope': 'boost-slope',
  'servo-slope': 'boost-slope',
  'run-out-servo-force': 'run-out-output',
  'servo-residual': 'residual-output',
  'force-hysteresis': 'hysteresis',
  'store-cut-in': 'pump-cut-in',
  'store-cut-out': 'pump-cut-out',
  'store-cut-in-2': 'pump-cut-in-2',
  'store-cut-out-2': 'pump-cut-out-2',
  'angle-hysteresis': 'hysteresis',
  'front-residual': 'residual-output',
  'rear-residual': 'residual-output-2',
  'parking-release-pressure': 'release-pressure',
  'store-soak-loss': 'soak-loss',
};

/** The name a characteristic has in open files. */
export function openName(id: CharacteristicId): string {
  return openNames[id] ?? id;
}

/** The characteristic of a step that has this name in open files; undefined when the step has none. */
export function findByOpenName(ids: readonly CharacteristicId[], name: string): CharacteristicId | undefined {
  return ids.find((id) => openName(id) === name);
}

export type CharacteristicId = keyof typeof characteristicUnits;

/** Whether `id` names a characteristic that the product knows. */
export function isCharacteristicId(id: string): id is CharacteristicId {
  return Object.hasOwn(characteristicUnits, id);
}
