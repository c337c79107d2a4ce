import { kindNamed } from '@/core/families';
import { specFromText } from './spec-from-text';

const kind = kindNamed('vacuum-remote');
const typed = {
  powerPistonDiameterMm: '178',
  slaveBoreMm: '25,4',
  pushRodDiameterMm: ' 10 ',
  cutInPressureKpa: '350',
  controlAreaRatio: '0.042',
  ratedVacuumKpa: '60',
  referenceInputKpa: '1700',
};

describe('a sheet from what was typed', () => {
  it('takes decimal commas and spaces, and leaves empty fields to their defaults', () => {
    const { spec, problems } = specFromText(kind, { ...typed, hysteresisKpa: '' });
    expect(problems).toEqual({});
    expect(spec).toMatchObject({ slaveBoreMm: 25.4, pushRodDiameterMm: 10 });
    expect(spec).not.toHaveProperty('hysteresisKpa');
  });

  it('names what is not a number, what is missing, and what does not fit, in the form’s words', () => {
    expect(specFromText(kind, { ...typed, slaveBoreMm: 'about an inch' }).problems.slaveBoreMm).toBe(
      '"about an inch" is not a number',
    );
    expect(specFromText(kind, { ...typed, slaveBoreMm: '' }).problems.slaveBoreMm).toBe('Measure this one too');
    expect(specFromText(kind, { ...typed, pushRodDiameterMm: '40' }).problems.pushRodDiameterMm).toBe(
      'Must be smaller than slave bore',
    );
    expect(specFromText(kind, { ...typed, ratedVacuumKpa: '-4' }).problems).toHaveProperty('ratedVacuumKpa');
  });
});
