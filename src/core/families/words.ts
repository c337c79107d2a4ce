import { joinControls } from '../physics/bench-controls';
import type { BroughtRows } from '../procedure/brought-rows';
import { joinWorkshopLimits } from '../procedure/workshop-limits';
import { joinChannels } from '../quantities/channels';
import { joinCharacteristics } from '../quantities/characteristics';
import { analysisRows } from '../toolboxes/analysis/rows';
import { electricalRows } from '../toolboxes/electrical/rows';
import { foundationRows } from '../toolboxes/foundation/rows';
import { servoRows } from '../toolboxes/servo/rows';
import { storeRows } from '../toolboxes/store/rows';
import { vacuumRows } from '../toolboxes/vacuum/rows';
import { vacuumRemoteRows } from './vacuum-remote/rows';
import { vacuumInlineRows } from './vacuum-inline/rows';
import { vacuumSupplyRows } from './vacuum-supply/rows';
import { hydraulicBoostRows } from './hydraulic-boost/rows';
import { motorPumpBoostRows } from './motor-pump-boost/rows';
import { motorBoostRows } from './motor-boost/rows';
import { byWireRows } from './brake-by-wire/rows';
import { blendedRows } from './blended-braking/rows';
import { storedPressureRows } from './stored-pressure/rows';
import { pedalValveRows } from './pedal-valve/rows';
import { foundationFamilyRows } from './foundation/rows';

const taken = new WeakSet<BroughtRows>();

/** Takes words in, once; throws where one of another is there already (a programmer's error). */
export function join(rows: BroughtRows): void {
  if (taken.has(rows)) return;
  taken.add(rows);
  joinChannels(rows.channels ?? {});
  joinCharacteristics(rows.characteristics ?? {});
  joinControls(rows.controls ?? []);
  joinWorkshopLimits(rows.limits ?? {});
}

/** Words that families share belong to the toolbox that measures them. */
const shared = [analysisRows, vacuumRows, servoRows, storeRows, electricalRows, foundationRows];

/** Words of families are here before their families are: a page names any channel, and loads the family of its unit. */
const ofFamilies = [
  vacuumRemoteRows,
  vacuumInlineRows,
  vacuumSupplyRows,
  hydraulicBoostRows,
  motorPumpBoostRows,
  motorBoostRows,
  byWireRows,
  blendedRows,
  storedPressureRows,
  pedalValveRows,
  foundationFamilyRows,
];

for (const rows of [...shared, ...ofFamilies]) join(rows);
