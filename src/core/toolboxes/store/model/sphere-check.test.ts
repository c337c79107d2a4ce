import '../../../families';
import { instrumentsByChannel } from '../../../instruments/default-instruments';
import { restateSphereReading, spherePrechargeLimits } from './sphere-check';

const at = '2026-11-23T08:00:00Z';
const read = { reading: 6.01e6, temperature: 284.15, ambient: 85_400, at, instruments: new Map() };

describe('a sphere on the charging tool', () => {
  it('is restated to 20 °C by its absolute pressure', () => {
    // (6.01 + 0.0854) MPa · 293.15/284.15 − 0.0854 MPa
    expect(restateSphereReading(read).precharge / 1e6).toBeCloseTo(6.2031, 3);
  });

  it('is read by eye: a gauge that nobody named is an ordinary dial, and so is the tool’s own', () => {
    const standIns = instrumentsByChannel([]);
    for (const instruments of [standIns, new Map()]) {
      const { standard } = restateSphereReading({ ...read, instruments });
      expect(standard / read.reading).toBeGreaterThan(0.006);
      expect(standard / read.reading).toBeLessThan(0.02);
    }
  });

  it('is as good as the gauge that was named', () => {
    const named = {
      channel: 'accumulator_pressure',
      name: 'Charging tool, class 0.6',
      range: 16e6,
      resolution: 10e3,
      classFraction: 0.006,
      classOf: 'full-scale' as const,
      calibratedOn: '2026-06-01',
      dueOn: '2027-06-01',
    };
    const instruments = new Map([['accumulator_pressure', named]]);
    const good = restateSphereReading({ ...read, instruments }).standard;
    expect(good).toBeLessThan(restateSphereReading(read).standard * 1.2);
    // The shell's kelvin is always there.
    expect(good).toBeGreaterThan((read.reading + read.ambient) / read.temperature);
  });

  it('is right within its tolerance either way', () => {
    const [low, high] = spherePrechargeLimits(6e6, { prechargeTolerance: 0.1 });
    expect(low).toBeCloseTo(5.4e6, 3);
    expect(high).toBeCloseTo(6.6e6, 3);
  });
});
