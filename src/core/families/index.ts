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
import { register } from './registry';

export * from './registry';

// The families, in the registry's order. A browser, which wants one at a time, has them from `at-hand`.
register(vacuumRemote);
register(vacuumInline);
register(vacuumSupply);
register(hydraulicBoost);
register(motorPumpBoost);
register(motorBoost);
register(brakeByWire);
register(blendedBraking);
register(storedPressure);
register(pedalValve);
register(foundation);
