import { airGasConstant } from './nozzle';
import { exchangeAir, wallConductance, type AirChamber } from './air-chamber';

const room = 293.15;
const ambient = 101_325;
const volume = 3e-3;
const dt = 1e-4;

function moved(
  seconds: number,
  conductance: number,
  flow: (chamber: AirChamber) => { mass: number; heat: number; growth: number },
  begin: AirChamber = { pressure: ambient, temperature: room },
): AirChamber {
  const chamber = { ...begin };
  for (let n = 0; n < seconds / dt; n++) exchangeAir(chamber, dt, volume, flow(chamber), conductance, room);
  return chamber;
}

const drawnOff = (chamber: AirChamber) => {
  const mass = -(2e-3 * chamber.pressure) / (airGasConstant * chamber.temperature);
  return { mass, heat: mass * chamber.temperature, growth: 0 };
};

describe('air in a chamber', () => {
  it('drawn off without heat from the walls, it follows p/T^(γ/(γ−1))', () => {
    const { pressure, temperature } = moved(1.5, 0, drawnOff);
    expect(temperature / room).toBeCloseTo((pressure / ambient) ** (0.4 / 1.4), 3);
    expect(pressure).toBeLessThan(0.3 * ambient);
  });

  it('drawn off with walls that give all heat asked for, it keeps its temperature', () => {
    const { pressure, temperature } = moved(1.5, 500, drawnOff);
    expect(temperature).toBeCloseTo(room, 0);
    expect(pressure / ambient).toBeCloseTo(Math.exp((-1.5 * 2e-3) / volume), 2);
  });

  it('left alone it warms to its walls, and its pressure with it, its mass kept', () => {
    const cold = { pressure: 30_000, temperature: 270 };
    const still = moved(20, wallConductance(volume), () => ({ mass: 0, heat: 0, growth: 0 }), cold);
    expect(still.temperature).toBeCloseTo(room, 1);
    expect(still.pressure / cold.pressure).toBeCloseTo(room / cold.temperature, 3);
  });

  it('filled from an open room without loss, it is warmer by what the room pushed in', () => {
    const filled = moved(
      12,
      0,
      ({ pressure }) => {
        const mass = 2e-8 * Math.max(0, ambient - pressure);
        return { mass, heat: mass * room, growth: 0 };
      },
      { pressure: 100, temperature: room },
    );
    // An empty rigid vessel ends at γ times the temperature of what came in.
    expect(filled.temperature / room).toBeCloseTo(1.4, 2);
    expect(filled.pressure).toBeCloseTo(ambient, -3);
  });
});
