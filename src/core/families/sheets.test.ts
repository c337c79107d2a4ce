import { findFamily, kindNamed } from '.';
import { kindOf } from '../contract/family';
import { checkKind } from '../formats/unit-sheet';

type Change = Readonly<Record<string, unknown>>;

/** Sheets that cannot be true: what is changed of the example, and the field that is named. */
const impossible: readonly (readonly [family: string, field: string, change: Change])[] = [
  ['vacuum-remote', 'hysteresisKpa', { hysteresisKpa: 350 }],
  ['vacuum-remote', 'pushRodDiameterMm', { pushRodDiameterMm: 25.4 }],
  ['vacuum-remote', 'slaveBoreMm', { powerPistonDiameterMm: 25 }],
  ['vacuum-remote', 'appliedVolumeCm3', { appliedVolumeCm3: 3400 }],
  ['vacuum-remote', 'switchCloseMinKpa', { switchCloseMinKpa: 600 }],
  ['vacuum-remote', 'controlAreaRatio', { controlAreaRatio: 0.001 }],
  ['vacuum-remote', 'powerPistons', { powerPistons: 3 }],
  ['vacuum-remote', 'fluid', { fluid: 'water' }],
  ['vacuum-inline', 'hubDiameterMm', { hubDiameterMm: 400 }],
  ['vacuum-inline', 'hysteresisN', { hysteresisN: 400 }],
  ['vacuum-inline', 'masterBoreMm', { masterBoreMm: 99, diaphragmDiameterMm: 98 }],
  ['vacuum-inline', 'appliedTravelMm', { appliedTravelMm: 60, strokeMm: 32 }],
  ['vacuum-inline', 'frontVolumeCm3', { frontVolumeCm3: 20, rearVolumeCm3: 10 }],
  ['vacuum-inline', 'rodGapMinMm', { rodGapMinMm: 2, rodGapMaxMm: 1 }],
  ['vacuum-inline', 'jumpInForceN', { jumpInForceN: 4900 }],
  ['vacuum-supply', 'cutInVacuumKpa', { drive: 'electric', cutInVacuumKpa: undefined }],
  ['vacuum-supply', 'cutOutVacuumKpa', { drive: 'electric', cutOutVacuumKpa: undefined }],
  ['vacuum-supply', 'cutInVacuumKpa', { cutInVacuumKpa: 80, cutOutVacuumKpa: 70 }],
  ['vacuum-supply', 'cutOutVacuumKpa', { cutOutVacuumKpa: 99 }],
  ['vacuum-supply', 'sourceKind', { drive: 'electric', sourceKind: 'manifold' }],
  ['hydraulic-boost', 'hoseRatingKpa', { hoseRatingKpa: 9000, reliefKpa: 9000 }],
  ['hydraulic-boost', 'reservePrechargeKpa', { reservePrechargeKpa: 8000, reserveChargedKpa: 8000 }],
  ['hydraulic-boost', 'reserveChargedKpa', { reserveChargedKpa: 12_000, reliefKpa: 10_000 }],
  ['hydraulic-boost', 'hysteresisN', { hysteresisN: 60, cutInForceN: 60 }],
  ['hydraulic-boost', 'jumpInForceN', { jumpInForceN: 1900, boostPistonAreaMm2: 100 }],
  ['motor-pump-boost', 'cutInKpa', { cutInKpa: 18_000, cutOutKpa: 18_000 }],
  ['motor-pump-boost', 'prechargeKpa', { prechargeKpa: 14_500 }],
  ['motor-pump-boost', 'lampKpa', { lampKpa: 14_500 }],
  ['motor-pump-boost', 'leastUsefulKpa', { leastUsefulKpa: 19_000 }],
  ['motor-pump-boost', 'hysteresisN', { hysteresisN: 60, cutInForceN: 60 }],
  ['motor-pump-boost', 'jumpInForceN', { jumpInForceN: 1900, boostPistonAreaMm2: 60 }],
  ['stored-pressure', 'sphere2PrechargeKpa', { sphere2PrechargeKpa: 15_000 }],
  ['stored-pressure', 'regulatedMaximumKpa', { regulatedMaximumKpa: 15_000 }],
  ['stored-pressure', 'prechargeKpa', { prechargeKpa: 15_000 }],
  ['pedal-valve', 'rearPrechargeKpa', { rearPrechargeKpa: 15_000 }],
  ['pedal-valve', 'regulatedMaximumKpa', { regulatedMaximumKpa: 15_000 }],
  ['pedal-valve', 'travelMaxDegrees', { travelMaxDegrees: 6 }],
  ['pedal-valve', 'hysteresisDegrees', { hysteresisDegrees: 5, cutInTravelDegrees: 4 }],
];

function namedFields(familyId: string, change: Change): string[] {
  const kind = kindNamed(familyId);
  const spec = { ...(kind.sheet.example.spec as object), ...change };
  const checked = checkKind(kind, 'study', spec, 'study.json');
  return checked.ok ? [] : checked.problems.flatMap((each) => (each.code === 'bad-field' ? [each.field] : [each.code]));
}

describe('sheets that cannot be true', () => {
  it.each(impossible)('%s: %s is named', (family, field, change) => {
    expect(namedFields(family, change)).toContain(`spec.${field}`);
  });

  it.each([...new Set(impossible.map(([family]) => family))])('%s: the example itself is true', (family) => {
    expect(namedFields(family, {})).toEqual([]);
  });

  it.each([...new Set(impossible.map(([family]) => family))])('%s: a field nobody knows is named', (family) => {
    expect(namedFields(family, { wheelNuts: 5 })).toEqual(['spec.wheelNuts']);
  });

  it.each([...new Set(impossible.map(([family]) => family))])(
    '%s: every needed figure is asked for when it is missing, NaN, text or below zero',
    (id) => {
      const kind = kindOf(findFamily(id)!, {});
      for (const { name } of kind.sheet.fields.filter((field) => field.required && !field.choices))
        for (const wrong of [undefined, Number.NaN, '12', -1, Number.POSITIVE_INFINITY])
          expect([name, wrong, namedFields(id, { [name]: wrong })]).toEqual([
            name,
            wrong,
            expect.arrayContaining([`spec.${name}`]),
          ]);
    },
  );
});
