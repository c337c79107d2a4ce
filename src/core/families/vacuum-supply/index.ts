import { supplyParts, supplyPrevalence, supplySymptoms } from './parts-and-symptoms';
import { vacuumSupplyRows } from './rows';
import type { Family } from '../../contract/family';
import type { Kind } from '../../contract/kind';
import type { SupplyCondition } from './faults';
import { vacuumSupplyModel } from './model';
import { prepareVacuumSupply, pumpDownVacuum, type VacuumSupplyUnit } from './geometry';
import { vacuumSupplyFields, vacuumSupplySchema, type VacuumSupplySpec } from './sheet';
import { pumpDownBand } from './pump-down-band';
import { vacuumSupplySteps } from './steps';
import { supplyVehicle } from './vehicle-stand';
import { supplyDiagram } from './diagram';

/** Time over which a pump-down is drawn, in time constants. */
const drawnConstants = 5;
const drawnPoints = 40;

const kind: Kind<VacuumSupplySpec, VacuumSupplyUnit, SupplyCondition> = {
  family: 'vacuum-supply',
  value: '',
  title: 'Vacuum source',
  description: 'Manifold, driven pump, or electric pump with its reservoir, tested in the vehicle',
  sheet: {
    schema: vacuumSupplySchema,
    fields: vacuumSupplyFields,
    example: {
      name: 'Ostvale Works E4 pump',
      spec: vacuumSupplySchema.parse({
        sourceKind: 'pump',
        drive: 'electric',
        reservoirVolumeCm3: 4200,
        seaLevelVacuumKpa: 88,
        pumpSpeedLPerMin: 95,
        cutInVacuumKpa: 54,
        cutOutVacuumKpa: 68,
        sensorReference: 'differential',
        applicationVolumeCm3: 600,
        runTimeMaxS: 12,
      }),
    },
    prepare: prepareVacuumSupply,
  },
  model: vacuumSupplyModel,
  parts: supplyParts,
  diagram: supplyDiagram,
  symptoms: supplySymptoms,
  prevalence: supplyPrevalence,
  plans: [
    {
      id: 'vehicle',
      title: 'On the vehicle',
      steps: vacuumSupplySteps.map((step) => step.id),
      ...supplyVehicle,
      face: 'pump-down',
      closing: ['rest-leak'],
      conclusions: [],
    },
  ],
  steps: vacuumSupplySteps,
  curve: {
    kind: 'curve',
    input: 'time',
    outputs: ['supply_vacuum'],
    expected: (unit, settled, { workshopLimits: limits }) => {
      const end = (drawnConstants * unit.volume) / unit.speed;
      const points = Array.from({ length: drawnPoints + 1 }, (_, at) => {
        const input = (end * at) / drawnPoints;
        return { input, output: pumpDownVacuum(unit, input, settled) };
      });
      return { apply: points, wayBack: [], keyPoints: [], tolerance: limits.pumpSpeedTolerance, inputEnd: end };
    },
    band: (unit, time, settled, { workshopLimits }) => pumpDownBand(unit, time, settled, workshopLimits),
  },
};

/** Vacuum source: manifold, driven pump, or electric pump with reservoir. */
export const vacuumSupply: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: vacuumSupplyRows,
};
