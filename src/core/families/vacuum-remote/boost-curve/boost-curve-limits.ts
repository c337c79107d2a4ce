import { readingComponents } from '../../../instruments/uncertainty';
import { estimateOf } from '../../../procedure/analysis-result';
import type { WorkshopLimits } from '../../../procedure/workshop-limits';
import { type Limit, around, atMost, limitFrom } from '../../../procedure/limit';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { RemoteUnit } from '../unit/remote-unit';
import { runOutInput } from '../unit/control-valve';

const share = (percent: number | undefined) => (percent === undefined ? undefined : percent / 100);

/** Share of the rated vacuum that a supply which nobody recorded may be off, one sigma. */
const unrecorded = 0.15;

/** Standard uncertainty (Pa) of a supply vacuum as the gauge reads it; wide where there was none to read. */
function vacuumStandard(context: StepContext<RemoteUnit>, vacuum: number | undefined): number {
  if (vacuum === undefined) return unrecorded * context.unit.ratedVacuum;
  const instrument = context.instruments.get('supply_vacuum');
  if (!instrument) return 0;
  const parts = readingComponents(instrument, vacuum, context.date);
  return Math.sqrt(parts.reduce((sum, part) => sum + part.standard ** 2, 0));
}

/** What a layout's model expects of its boost curve, SI. */
export interface ExpectedFigures {
  readonly atReference: {
    readonly id: 'boost-ratio' | 'servo-force';
    readonly at: (vacuum: number) => number;
    readonly tolerance: ReturnType<typeof limitFrom>;
  };
  readonly cutIn: number;
  readonly hysteresis: number;
}

/** How far output at the reference input may be off: the sheet's percentage, else the workshop's. */
export function outputTolerance(field: string, percent: number | undefined, shop: WorkshopLimits) {
  return limitFrom({ field, value: share(percent) }, { key: 'boostRatioTolerance', value: shop.boostRatioTolerance });
}

/**
 * Limits of the boost curve at the supply vacuum that was there: output at the reference, run-out input and cut-in around
 * the model's values, hysteresis, control remainder and supply sag at most. Without a supply reading the limits
 * that depend on it are judged at the rated vacuum, with what a supply may differ from it in their U.
 */
export function boostCurveLimits(
  analysis: StepAnalysis,
  context: StepContext<RemoteUnit>,
  expected: ExpectedFigures,
): Limit[] {
  const { unit, workshopLimits: shop } = context;
  const { spec } = unit;
  const vacuum = analysis.vacuum ?? unit.ratedVacuum;
  const standard = vacuumStandard(context, analysis.vacuum);
  const { atReference, hysteresis } = expected;
  const perPascal = (atReference.at(vacuum + 500) - atReference.at(vacuum - 500)) / 1000;
  const from = (field: keyof typeof spec & string, value: number | undefined, key: keyof typeof shop) =>
    limitFrom({ field, value }, { key, value: shop[key] });
  const restVacuum = analysis.restVacuum ?? vacuum;
  const ofVacuum = (limit: ReturnType<typeof from>) => ({ ...limit, value: limit.value * restVacuum });
  const hysteresisLimit = from(
    'hysteresisMaxKpa',
    spec.hysteresisMaxKpa === undefined ? undefined : spec.hysteresisMaxKpa * 1e3,
    'hysteresisFactor',
  );
  const limits = [
    around(atReference.id, atReference.at(vacuum), atReference.tolerance, Math.abs(perPascal) * standard),
    around(
      'run-out-input',
      runOutInput(unit, vacuum),
      from('runOutTolerancePercent', share(spec.runOutTolerancePercent), 'runOutTolerance'),
      standard / unit.controlRatio,
    ),
    around(
      'cut-in-pressure',
      expected.cutIn,
      from('cutInTolerancePercent', share(spec.cutInTolerancePercent), 'cutInTolerance'),
    ),
    atMost(
      'hysteresis',
      hysteresisLimit.source.kind === 'workshop'
        ? { ...hysteresisLimit, value: hysteresisLimit.value * hysteresis }
        : hysteresisLimit,
      { expected: hysteresis },
    ),
    atMost(
      'control-remainder',
      ofVacuum(from('controlRemainderMaxPercent', share(spec.controlRemainderMaxPercent), 'controlRemainder')),
      { expected: 0 },
    ),
    atMost('supply-sag', ofVacuum(from('supplySagMaxPercent', share(spec.supplySagMaxPercent), 'supplySag')), {
      expected: 0,
    }),
  ];
  // A unit without friction has no hysteresis to double.
  return hysteresis > 0 || estimateOf(analysis, 'hysteresis') === undefined
    ? limits
    : limits.filter((limit) => limit.characteristic !== 'hysteresis' || limit.source.kind === 'sheet');
}
