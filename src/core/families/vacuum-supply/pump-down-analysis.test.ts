import fc from 'fast-check';
import { standInUnit } from '../../../../tests/support/stand-in-unit';
import { exchangeAir } from '../../physics/air-chamber';
import { airGasConstant } from '../../physics/nozzle';
import { expandedUncertainty } from '../../instruments/uncertainty';
import { analysePumpDown } from './pump-down-analysis';
import type { VacuumSupplyUnit } from './geometry';

const { unit, context } = standInUnit<VacuumSupplyUnit>('vacuum-supply', 'vehicle');
const volume = unit.volume + (context.benchVolume ?? 0);
const ambient = context.ambient.pressure;
const room = 293.15;
const dt = 5e-3;

/** A draw by the first law, its walls giving `conductance` (W/K). */
function draw(tau: number, ultimate: number, conductance: number) {
  const chamber = { pressure: ambient, temperature: room };
  const rows = Math.round((6 * tau + 1) / dt);
  const time = Float64Array.from({ length: rows }, (_, n) => n * dt);
  const supply = time.map((t) => {
    if (t > 1) {
      const pulled = ((volume / tau) * Math.max(0, chamber.pressure - ultimate)) / airGasConstant;
      const exchange = { mass: -pulled / chamber.temperature, heat: -pulled, growth: 0 };
      exchangeAir(chamber, dt, volume, exchange, conductance, room);
    }
    return ambient - chamber.pressure;
  });
  return { time, columns: { supply_vacuum: supply, pump_on: time.map((t) => (t > 1 ? 1 : 0)) } };
}

describe('a draw whose air cools and warms', () => {
  it('gives speed, ultimate pressure and draw time within what is said of them, from vessels with still air to stirred ones', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 15, noNaN: true }),
        fc.double({ min: 5e3, max: 15e3, noNaN: true }),
        // 3 to 60 W/(m2·K) at the walls of a shell of this size.
        fc.double({ min: 3, max: 60, noNaN: true }),
        (tau, ultimate, wall) => {
          const { characteristics } = analysePumpDown(
            draw(tau, ultimate, wall * 6.6 * Math.cbrt(volume * volume)),
            context,
          );
          const truth = { 'pump-speed': volume / tau, 'ultimate-pressure': ultimate } as Record<string, number>;
          for (const found of characteristics) {
            if (!(found.id in truth)) continue;
            if (found.kind !== 'measured') throw new Error(`${found.id} is not measured`);
            expect(Math.abs(found.estimate.value - truth[found.id])).toBeLessThan(expandedUncertainty(found.estimate));
          }
        },
      ),
    );
  });

  it('times a draw where it is seen to be over, whatever shape it had on the way', () => {
    const trace = draw(3, 11_000, 1.9);
    const reached = trace.time.find((_, i) => trace.columns.supply_vacuum[i] >= 0.95 * (ambient - 11_000))! - 1;
    const found = analysePumpDown(trace, context).characteristics.find((each) => each.id === 'draw-time');
    if (found?.kind !== 'measured') throw new Error('not timed');
    expect(Math.abs(found.estimate.value - reached)).toBeLessThan(expandedUncertainty(found.estimate));
    expect(expandedUncertainty(found.estimate)).toBeLessThan(0.25 * reached);
  });
});
