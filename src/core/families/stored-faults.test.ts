import { standInUnit } from '../../../tests/support/stand-in-unit';
import type { ActiveFault } from '../physics/plant';
import type { PlanId } from '../procedure/step-context';

/** Characteristics that a fault must fail, by step, and steps that it must leave alone. */
interface Signature {
  readonly id: string;
  readonly severity: number;
  readonly fails: Readonly<Record<string, readonly string[]>>;
  readonly holds: readonly string[];
}

/** Faults that only a look or a typed step finds. */
type Elsewhere = Readonly<Record<string, string>>;

function describeFamily(familyId: string, plan: PlanId, signatures: readonly Signature[], elsewhere: Elsewhere): void {
  describe(`faults of ${familyId} show as the trade knows them`, () => {
    const bench = standInUnit(familyId, plan);
    const { kind } = bench;

    it('covers every fault of the family', () => {
      const covered = [...signatures.map((each) => each.id), ...Object.keys(elsewhere)];
      expect(covered.sort()).toEqual(kind.model.faults.map((fault) => fault.id).sort());
    });

    it.each(signatures)('$id', ({ id, severity, fails, holds }) => {
      const faults: ActiveFault[] = [{ id, severity }];
      for (const [step, characteristics] of Object.entries(fails)) {
        const failed = bench
          .judgeStep(step, faults)
          .checks.filter((check) => check.verdict.kind === 'fail')
          .map((check) => check.characteristic);
        expect({ step, failed }).toEqual({ step, failed: expect.arrayContaining([...characteristics]) });
      }
      for (const step of holds)
        expect({ step, verdict: bench.judgeStep(step, faults).verdict }).toEqual({ step, verdict: 'pass' });
    });

    for (const [id, where] of Object.entries(elsewhere))
      it(`${id} shows where it is looked for: ${where}`, () => {
        const fault = kind.model.faults.find((each) => each.id === id);
        const step = kind.steps.find((each) => each.id === where);
        if (step?.kind === 'look')
          expect(step.feeds.look.points.some((point) => fault?.appearance[point.id] !== undefined)).toBe(true);
        else expect(bench.typedVerdict(where, [{ id, severity: 0.5 }])).toBe('fail');
      });
  });
}

describeFamily(
  'motor-pump-boost',
  'bench',
  [
    { id: 'motor-worn', severity: 0.4, fails: { 'supply-check': ['run-current'] }, holds: ['bleed-down'] },
    { id: 'motor-flooded', severity: 0.4, fails: { 'supply-check': ['run-current'] }, holds: ['charge-from-empty'] },
    {
      id: 'pump-vanes-worn',
      severity: 0.5,
      fails: { 'rest-cycle': ['run-time'] },
      holds: ['supply-check', 'pump-switch'],
    },
    {
      id: 'accumulator-precharge-low',
      severity: 0.3,
      fails: { 'charge-from-empty': ['precharge'], 'bleed-down': ['precharge'] },
      holds: ['pump-switch'],
    },
    {
      id: 'accumulator-bladder-failed',
      severity: 1,
      fails: { 'charge-from-empty': ['precharge'], 'rest-cycle': ['rest-time'] },
      holds: [],
    },
    {
      id: 'pressure-switch-low',
      severity: 0.3,
      fails: { 'pump-switch': ['store-cut-in', 'store-cut-out'] },
      holds: ['charge-from-empty'],
    },
    {
      id: 'pressure-switch-high',
      severity: 0.4,
      fails: { 'pump-switch': ['store-cut-in', 'store-cut-out'] },
      holds: ['charge-from-empty'],
    },
    {
      id: 'pressure-switch-stuck',
      severity: 1,
      fails: { 'charge-from-empty': ['charge-time'] },
      holds: ['bleed-down'],
    },
    {
      id: 'outlet-check-leak',
      severity: 0.3,
      fails: { 'rest-cycle': ['rest-time', 'internal-leak-flow'] },
      holds: ['pump-switch'],
    },
    {
      id: 'internal-leak',
      severity: 0.4,
      fails: { 'rest-cycle': ['rest-time', 'internal-leak-flow'] },
      holds: ['charge-from-empty'],
    },
    { id: 'relay-or-supply-drop', severity: 0.4, fails: { 'supply-check': ['supply-drop'] }, holds: ['bleed-down'] },
    { id: 'relief-stuck-open', severity: 0.5, fails: { 'charge-from-empty': ['charge-time'] }, holds: [] },
    {
      id: 'switch-band-narrow',
      severity: 0.4,
      fails: { 'pump-switch': ['store-cut-in'] },
      holds: ['charge-from-empty'],
    },
  ],
  {},
);

describeFamily(
  'pedal-valve',
  'bench',
  [
    { id: 'orifice-plugged-upper', severity: 0.3, fails: { 'step-response': ['rise-time'] }, holds: ['neutral-leak'] },
    {
      id: 'orifice-plugged-lower',
      severity: 0.3,
      fails: { 'step-response': ['rise-time@rear'] },
      holds: ['neutral-leak'],
    },
    {
      id: 'spool-sticking',
      severity: 0.5,
      fails: { 'modulation-curve': ['angle-hysteresis'] },
      holds: ['neutral-leak'],
    },
    { id: 'spool-worn', severity: 0.5, fails: { 'neutral-leak': ['neutral-leak-flow'] }, holds: ['step-response'] },
    { id: 'springs-set', severity: 0.4, fails: { 'modulation-curve': ['modulation-slope'] }, holds: ['residual'] },
    {
      id: 'stop-misadjusted',
      severity: 0.4,
      fails: { 'modulation-curve': ['regulated-maximum'] },
      holds: ['residual'],
    },
    {
      id: 'charging-valve-low',
      severity: 0.4,
      fails: { charging: ['store-cut-in', 'store-cut-out'] },
      holds: ['residual'],
    },
    { id: 'accumulator-front-low', severity: 0.3, fails: { charging: ['precharge'] }, holds: ['residual'] },
    { id: 'accumulator-rear-low', severity: 0.3, fails: { charging: ['precharge@2'] }, holds: ['residual'] },
    {
      id: 'residual-pressure',
      severity: 0.3,
      fails: { residual: ['port-residual', 'port-residual@rear'] },
      holds: ['neutral-leak'],
    },
    {
      id: 'tank-line-restricted',
      severity: 0.3,
      fails: { residual: ['port-residual', 'port-residual@rear'] },
      holds: ['neutral-leak'],
    },
    { id: 'alarm-switch-shifted', severity: 0.3, fails: { applications: ['alarm-pressure'] }, holds: ['residual'] },
  ],
  {},
);

describeFamily(
  'stored-pressure',
  'vehicle',
  [
    { id: 'pump-1-weak', severity: 0.5, fails: { 'charge-from-empty': ['charge-time'] }, holds: ['pump-switch'] },
    { id: 'pump-2-weak', severity: 0.5, fails: { 'charge-from-empty': ['charge-time@2'] }, holds: ['pump-switch'] },
    { id: 'sphere-1-low', severity: 0.3, fails: { 'charge-from-empty': ['precharge'] }, holds: ['pump-switch'] },
    { id: 'sphere-2-low', severity: 0.3, fails: { 'charge-from-empty': ['precharge@2'] }, holds: ['pump-switch'] },
    { id: 'valve-block-1-leak', severity: 0.6, fails: { 'rest-cycle': ['internal-leak-flow'] }, holds: ['bump'] },
    { id: 'valve-block-2-leak', severity: 0.6, fails: { 'rest-cycle': ['internal-leak-flow@2'] }, holds: ['bump'] },
    {
      id: 'cut-out-shifted',
      severity: 0.5,
      fails: { 'pump-switch': ['store-cut-out', 'store-cut-out@2'] },
      holds: ['bump'],
    },
    {
      id: 'metering-valve-worn',
      severity: 0.5,
      fails: { 'metering-curve': ['circuit-difference'] },
      holds: ['pump-switch'],
    },
    { id: 'levelling-restrictor-failed', severity: 0.4, fails: { bump: ['bump-pressure'] }, holds: ['pump-switch'] },
    { id: 'levelling-leak', severity: 0.4, fails: { 'rest-cycle': ['internal-leak-flow@2'] }, holds: ['bump'] },
    { id: 'feel-cylinder-leak', severity: 0.5, fails: { 'metering-curve': ['cut-in-force'] }, holds: ['bump'] },
  ],
  {
    'levelling-propping-springs': 'ride-height',
    'wrong-sphere-fitted': 'sphere-precharge',
    'wrong-fluid': 'sphere-precharge',
    'parking-cable-seized': 'walk-round',
  },
);

describeFamily(
  'hydraulic-boost',
  'vehicle',
  [
    { id: 'pump-relief-low', severity: 0.4, fails: { 'pump-relief': ['relief-pressure'] }, holds: ['return-pressure'] },
    { id: 'pump-flow-low', severity: 0.4, fails: { 'pump-relief': ['pump-flow'] }, holds: ['return-pressure'] },
    { id: 'belt-slip', severity: 0.4, fails: { 'pump-relief': ['relief-pressure'] }, holds: ['return-pressure'] },
    {
      id: 'reserve-accumulator-dead',
      severity: 1,
      fails: { reserve: ['assisted-applications'] },
      holds: ['pump-relief'],
    },
    {
      id: 'reserve-check-leak',
      severity: 0.3,
      fails: { 'reserve-soak': ['assisted-applications'] },
      holds: ['reserve'],
    },
    { id: 'spool-sticking', severity: 0.5, fails: { 'assist-curve': ['force-hysteresis'] }, holds: ['pump-relief'] },
    { id: 'spool-seal-leak', severity: 0.4, fails: { 'assist-curve': ['run-out-force'] }, holds: ['pump-relief'] },
    {
      id: 'return-restricted',
      severity: 0.4,
      fails: { 'return-pressure': ['return-pressure'] },
      holds: ['pump-relief'],
    },
    { id: 'steering-flow-priority', severity: 0.4, fails: { 'steering-share': ['boost-sag'] }, holds: ['pump-relief'] },
  ],
  {
    'rod-seal-leak': 'leak-look',
    'air-in-fluid': 'fluid-look',
    'fluid-contaminated': 'fluid-look',
    'hose-underrated': 'hose-look',
  },
);

describe('levelling', () => {
  const coach = standInUnit('stored-pressure', 'vehicle');
  const levelling = (faults: readonly ActiveFault[]) => {
    const found = coach
      .judge(faults)
      .steps.find((step) => step.step === 'soak-isolated')
      ?.checks.find((check) => check.characteristic === 'levelling-leak-flow');
    return found?.verdict.kind;
  };

  it('is told from the circuit’s own leak by the two soaks', () => {
    expect(levelling([{ id: 'levelling-leak', severity: 0.4 }])).toBe('fail');
    expect(levelling([{ id: 'valve-block-2-leak', severity: 0.4 }])).toBe('pass');
  });
});
