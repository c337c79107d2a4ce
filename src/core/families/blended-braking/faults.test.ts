import { conditionWith } from '../../contract/model';
import { toldAt } from '../../contract/fault';
import { expandedUncertainty, type Estimate } from '../../instruments/uncertainty';
import { clockedIn, drivenIn, ownSensors, shuttle } from '../../../../tests/support/driven-vehicle';
import { closureOf } from './closure';
import { samplesOf } from './drive';
import { longestDisagreement, speedDropouts, bridged } from './drive-states';
import { onClock } from './drive-clock';
import { blendedFaults, soundBlended } from './faults';
import { simulateDrive } from './drive-simulator';
import { brakedStretches, frictionGain } from './friction-gain';
import { deepestOf, handoversOf } from './handover';
import { panicDelays, panicEvents } from './panic';
import { masterDifference, storeMargin } from './pressure-order';
import { unfilledTorque } from './regen-limit';

const day = '2026-11-27';

/** What each step would say of a drive: the worst of its figures over its limit (over one fails), U left out and counted. */
function stepsOf(
  fault: string | null,
  seed: number,
): Record<string, { readonly over: number; readonly surely: boolean }> {
  const faults = fault === null ? [] : [{ id: fault, severity: toldAt }];
  const condition = conditionWith({ sound: soundBlended, faults: blendedFaults }, shuttle, faults);
  const trace = simulateDrive(shuttle, condition, { seed, stops: 24 });
  const drive = drivenIn(trace);
  const own = (channel: string) => samplesOf(trace, channel)!;
  const pressure = (channel: string) => ({ samples: own(channel), instrument: undefined });
  const travel = own('pedal_travel');
  const dropouts = speedDropouts(own('vehicle_speed'));
  const speed = onClock(bridged(own('vehicle_speed'), dropouts), drive.clock, 'straight');
  const panics = panicEvents(travel, shuttle.panicRate);
  const closure = closureOf(shuttle, drive, ownSensors, panics)!;
  const ofLargest = (share: number) => share * drive.largest;
  const over = ({ value, components }: Estimate, limit: number, at: 'most' | 'least' = 'most') => {
    const expanded = expandedUncertainty({ value, components });
    return at === 'most'
      ? { over: Math.abs(value) / limit, surely: Math.abs(value) - expanded > limit }
      : { over: limit / value, surely: value + expanded < limit };
  };
  const worst = (all: readonly { readonly over: number; readonly surely: boolean }[]) => ({
    over: Math.max(...all.map((each) => each.over)),
    surely: all.some((each) => each.surely),
  });
  const dip = deepestOf(handoversOf(shuttle, drive, closure, speed, ownSensors))!;
  const unfilled = unfilledTorque(shuttle, drive, closure, clockedIn(trace, drive, 'battery_charge'), ownSensors)!;
  const gain = frictionGain(brakedStretches(shuttle, drive, speed), ownSensors)!;
  const delays = panicDelays(drive, panics, travel, 0.01);
  const master = masterDifference(pressure('master_pressure'), pressure('master_pressure_2'), day)!;
  const margin = storeMargin(pressure('accumulator_pressure'), drive, new Map(), day)!;
  const { seconds } = longestDisagreement(own('stop_switch'), own('stop_switch_2'));
  return {
    'log-check': { over: dropouts.length > 0 ? 2 : 0, surely: dropouts.length > 0 },
    closure: worst([
      over(closure.bias, ofLargest(shuttle.closureBiasMost)),
      over(closure.rms, ofLargest(shuttle.closureRmsMost)),
      over(closure.worst.estimate, ofLargest(shuttle.closureWorstMost)),
      over(gain, shuttle.frictionGainLeast, 'least'),
    ]),
    handover: over(dip.dip, ofLargest(shuttle.handoverDipMost)),
    'panic-events': worst(
      delays.map((panic) => {
        if (panic.kind === 'answered') return over(panic.delay, shuttle.panicDelayMost);
        return panic.kind === 'not-answered' ? over(panic.atLeast, shuttle.panicDelayMost) : { over: 2, surely: true };
      }),
    ),
    'regen-limit': over(unfilled, ofLargest(shuttle.unfilledMost)),
    'pressure-order': worst([
      over(master.estimate, shuttle.masterDifferenceMost),
      over(margin.estimate, shuttle.storeMarginLeast, 'least'),
    ]),
    'lamp-states': {
      over: seconds / shuttle.switchDifferenceMost,
      surely: seconds > 1.5 * shuttle.switchDifferenceMost,
    },
  };
}

describe('drives of the stand-in', () => {
  it('a sound vehicle is within every limit, drive after drive', () => {
    for (const seed of [1, 2, 3])
      for (const [step, { over }] of Object.entries(stepsOf(null, seed)))
        expect([step, over < 1]).toEqual([step, true]);
  });

  it.each(blendedFaults.map((fault) => [fault.id, fault] as const))(
    '%s fails the steps that tell it, beyond doubt, and not those that it leaves',
    (id, fault) => {
      const steps = stepsOf(id, 4);
      for (const step of fault.tells) expect([step, steps[step].surely]).toEqual([step, true]);
      for (const step of fault.leaves) expect([step, steps[step].over < 1]).toEqual([step, true]);
    },
  );

  it('comes out the same twice, and otherwise from another seed', () => {
    const of = (seed: number) => simulateDrive(shuttle, soundBlended(), { seed, stops: 3 });
    expect(of(7)).toEqual(of(7));
    expect(of(8).columns.regen_torque).not.toEqual(of(7).columns.regen_torque);
  });
});
