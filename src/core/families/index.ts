import { vacuumInline } from './vacuum-inline';
import { foundation } from './foundation';
import { hydraulicBoost } from './hydraulic-boost';
import { blendedBraking } from './blended-braking';
import { brakeByWire } from './brake-by-wire';
import { motorBoost } from './motor-boost';
import { motorPumpBoost } from './motor-pump-boost';
import { pedalValve } from './pedal-valve';
import { storedPressure } from './stored-pressure';
import { vacuumSupply } from './vacuum-supply';
import { vacuumRemote } from './vacuum-remote';
import { findFamily, register } from './registry';

export * from './registry';

// The families, in the registry's order. A browser, which wants one at a time, has them by the gates of its screens.
for (const family of [
  vacuumRemote,
  vacuumInline,
  vacuumSupply,
  hydraulicBoost,
  motorPumpBoost,
  motorBoost,
  brakeByWire,
  blendedBraking,
  storedPressure,
  pedalValve,
  foundation,
])
  if (!findFamily(family.id)) register(family);
