import { boreWindow } from '@/core/calculators/bore-window';
import { lightRule } from '@/core/calculators/stop-rule';
import { minibus, minibusPedal } from '../../tests/support/minibus';
import { boreWindowOption, boreWindowText } from './bore-window-chart';
import { day } from './tokens';

const displacement = { volume: 12e-6, pedalTravelMost: 0.15 };
const found = boreWindow(minibus, minibusPedal, lightRule, displacement);
const seriesOf = (...of: Parameters<typeof boreWindowOption>) =>
  (boreWindowOption(...of).series as { id: string; data: [number, number][] }[]).map(({ id }) => id);

describe('bores as a picture', () => {
  it('draws both lines under their limits, and the window between', () => {
    expect(seriesOf(found, 23.8e-3, day)).toEqual(['window', 'force-most', 'travel-most', 'force', 'travel']);
    const option = boreWindowOption(found, 23.8e-3, day);
    const [force, travel] = option.yAxis as { max: number }[];
    for (const { pedalForce, pedalTravel } of found.points) {
      expect(pedalForce).toBeLessThanOrEqual(force.max);
      expect(pedalTravel! * 1e3).toBeLessThanOrEqual(travel.max);
    }
  });

  it('leaves out what is not known, and a window that is none', () => {
    const decoupled = boreWindow(minibus, minibusPedal, lightRule, null);
    expect(seriesOf(decoupled, 23.8e-3, day)).toEqual(['window', 'force-most', 'force']);
    const heavy = boreWindow({ ...minibus, mass: 6000 }, minibusPedal, lightRule, displacement);
    expect(seriesOf(heavy, 23.8e-3, day)).not.toContain('window');
    expect(boreWindowText(heavy, 23.8e-3)).toMatch(/No bore from 15 to 35 mm holds/);
  });

  it('says the same in words', () => {
    expect(boreWindowText(found, 23.8e-3)).toBe(
      'Bores of 20.2 to 31.4 mm hold, below it the pedal goes too far, above it the pedal is too hard; 23.8 mm lies inside.',
    );
    expect(boreWindowText(found, 15e-3)).toMatch(/15.0 mm lies outside/);
  });
});
