import { expandedUncertainty, type Estimate } from '../../instruments/uncertainty';
import { dice } from '../../../../tests/support/second-writer/logger';
import {
  drawTool,
  driveThrough,
  noTrouble,
  trueClosure,
  writeDrive,
  type DriveTool,
} from '../../../../tests/support/second-writer/drives';
import { pedalLog } from '../../../../tests/support/second-writer/pedal-logs';
import { clockedIn, drivenIn, ownSensors, shuttle } from '../../../../tests/support/driven-vehicle';
import { closureOf } from './closure';
import { samplesOf } from './drive';
import { deepestOf, handoversOf } from './handover';
import { panicEvents, panicRateLeast } from './panic';

/* Drives that another wrote, with sensors as a vehicle has them: what is found of them against what is true of them. */

const { vehicle } = shuttle;

/** One drive through five stops, the log that a tool writes of it, and what is true. */
function driven(seed: number, change: Partial<DriveTool> = {}, dipped = 0.6) {
  const luck = dice(seed);
  const trouble = {
    ...noTrouble,
    frictionGain: luck.between(0.85, 1.1),
    dip: luck.chance(dipped) ? luck.between(150, 500) : 0,
    dipSeconds: luck.between(0.25, 0.6),
  };
  const drive = driveThrough(luck, vehicle, { stops: 5, panics: luck.chance(0.5), trouble });
  const tool = { ...drawTool(luck), ...change };
  return { drive, tool, trace: writeDrive(luck, drive, vehicle, tool), truth: trueClosure(drive), trouble };
}

function analysed({ trace, tool, drive }: ReturnType<typeof driven>) {
  const read = drivenIn(trace);
  // A log that is too slow for the pedal has the word of whoever drove.
  const panics =
    tool.rate >= panicRateLeast ? panicEvents(samplesOf(trace, 'pedal_travel')!, shuttle.panicRate) : drive.panics;
  const closure = closureOf(shuttle, read, ownSensors, panics)!;
  const handovers = handoversOf(shuttle, read, closure, clockedIn(trace, read, 'vehicle_speed'), ownSensors);
  return { closure, deepest: deepestOf(handovers) };
}

const share = (of: readonly boolean[]) => of.filter(Boolean).length / of.length;

describe('three hundred drives by other tools', () => {
  const within: Record<string, boolean[]> = { bias: [], rms: [], worst: [], dip: [] };

  beforeAll(() => {
    const covers = (id: string, { value, components }: Estimate, truth: number) =>
      within[id].push(Math.abs(value - truth) <= expandedUncertainty({ value, components }));
    for (let seed = 0; seed < 300; seed++) {
      const one = driven(seed + 1000);
      const { closure, deepest } = analysed(one);
      covers('bias', closure.bias, one.truth.bias);
      covers('rms', closure.rms, one.truth.rms);
      covers('worst', closure.worst.estimate, one.truth.worst);
      if (deepest && one.truth.dip !== null) covers('dip', deepest.dip, one.truth.dip);
      expect([seed, deepest === null]).toEqual([seed, one.truth.dip === null]);
    }
  }, 600_000);

  it.each(['bias', 'rms', 'worst', 'dip'])('U covers the %s as often as it says', (id) => {
    expect(within[id].length).toBeGreaterThan(200);
    expect(share(within[id])).toBeGreaterThanOrEqual(0.93);
    expect(share(within[id])).toBeLessThanOrEqual(0.97);
  });
});

it('a dip in the handover is found within 5 %, its sensors being right', () => {
  const right = { gains: [0, 0, 0, 0], zeros: [0, 0, 0, 0], regenGain: 0, wheelRate: 100 };
  const off: number[] = [];
  for (let seed = 0; seed < 60; seed++) {
    const one = driven(seed + 5000, { ...right, rate: 100 }, 1);
    const { deepest } = analysed(one);
    if (deepest && one.truth.dip !== null && one.truth.dip > 150) off.push(deepest.dip.value / one.truth.dip - 1);
  }
  expect(off.length).toBeGreaterThan(40);
  expect(off.filter((each) => Math.abs(each) > 0.05)).toEqual([]);
}, 600_000);

it('of the panics of two hundred drives 99 % are found, and none that was none', () => {
  let [stamps, found, false_] = [0, 0, 0];
  for (let seed = 0; seed < 200; seed++) {
    const log = pedalLog(dice(seed + 9007), shuttle.panicRate);
    const events = panicEvents(log, shuttle.panicRate);
    const isOf = (event: number, stamp: number) => event >= stamp - 0.05 && event < stamp + 0.35;
    stamps += log.stamps.length;
    found += log.stamps.filter((stamp) => events.some((event) => isOf(event, stamp))).length;
    false_ += events.filter((event) => !log.stamps.some((stamp) => isOf(event, stamp))).length;
  }
  expect(stamps).toBeGreaterThan(500);
  expect(found / stamps).toBeGreaterThanOrEqual(0.99);
  expect(false_).toBe(0);
});
