import type { CurvePicture } from '../../../procedure/picture';
import type { CautionId } from '../../../vocabulary/caution-id';
import type { WorkshopLimits } from '../../../procedure/workshop-limits';
import type { Limit } from '../../../procedure/limit';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { ReadingBands } from '../../../procedure/expected';
import { boostCurveEntry } from './boost-curve-entry';
import { analyseBoostCurve, boostCurveCharacteristics } from './boost-curve-analysis';
import { chamberDifference, pullInput } from '../unit/control-valve';
import type { BoostSetup } from './corrected-pull';
import type { RemoteUnit } from '../unit/remote-unit';
import { rest, supplyOn, vacuumNow } from '../steps/step-parts';

/** What a layout makes of the one pull that both have. */
export interface LayoutCurve<Unit extends RemoteUnit> {
  readonly picture: CurvePicture<Unit>;
  /** Names of channel and figures, before there is a unit. */
  readonly names: Pick<BoostSetup, 'output' | 'ids'>;
  readonly setup: (unit: Unit) => BoostSetup;
  /** Lowest and highest output of a sound unit, SI, at an input (Pa) and a vacuum (Pa), either branch. */
  readonly outputBand: (
    unit: Unit,
    at: { readonly input: number; readonly vacuum: number },
    shop: WorkshopLimits,
  ) => readonly [number, number];
  /** Input (Pa gauge) at which a sound unit begins to help. */
  readonly cutIn: (unit: Unit) => number;
  readonly limits: (analysis: StepAnalysis, context: StepContext<Unit>) => readonly Limit[];
  readonly cautions: readonly CautionId[];
}

/** The boost curve of one layout: one even pull and its way back. */
export function boostCurveStep<Unit extends RemoteUnit>(layout: LayoutCurve<Unit>): MeasuredStep<Unit> {
  const { output } = layout.names;
  /** Where output, control port and supply of a sound unit are at the input and the vacuum of this moment. */
  const bands = (context: StepContext<Unit>, readings: Readonly<Record<string, number>>): ReadingBands => {
    const { unit, workshopLimits: shop } = context;
    const set = vacuumNow(context);
    const supply: ReadingBands = { supply_vacuum: [set * (1 - shop.supplySag), set * 1.02] };
    const input = readings.input_pressure;
    if (input === undefined) return supply;
    const vacuum = readings.supply_vacuum ?? set;
    const apply = vacuum - chamberDifference(unit, input, vacuum);
    const wayBack = vacuum - chamberDifference(unit, input, vacuum, 'way-back');
    const remainder = shop.controlRemainder * vacuum;
    return {
      ...supply,
      [output]: layout.outputBand(unit, { input: Math.max(0, input), vacuum }, shop),
      control_vacuum: [Math.min(apply, wayBack) - remainder, Math.max(apply, wayBack) + remainder],
    };
  };
  return {
    id: 'boost-curve',
    kind: 'measured',
    title: 'Boost curve',
    why: 'One even pull finds cut-in, slope, run-out and the way back.',
    minutes: 3,
    cautions: layout.cautions,
    optional: false,
    characteristics: boostCurveCharacteristics(layout.names),
    feeds: {
      log: {
        needs: ['input_pressure', output],
        uses: ['control_vacuum', 'supply_vacuum'],
        leastRows: 60,
        bandwidth: 20,
      },
      live: {
        startsFrom: 'evacuated',
        guide: (context) => {
          const top = pullInput(context.unit, vacuumNow(context));
          return [
            rest(2, supplyOn),
            {
              instruction: { code: 'pull-slowly-past', channel: 'input_pressure', level: top },
              controls: supplyOn,
              lever: { to: top * 1.02, seconds: 28 },
              end: { kind: 'input-above', level: top },
            },
            {
              instruction: { code: 'hold-there', seconds: 2 },
              controls: supplyOn,
              lever: { to: top * 1.02, seconds: 0.5 },
              end: { kind: 'seconds', seconds: 2.5 },
            },
            {
              instruction: { code: 'let-back-slowly', channel: 'input_pressure' },
              controls: supplyOn,
              lever: { to: 0, seconds: 22 },
              end: { kind: 'input-below', level: 30_000 },
            },
            rest(2.5, supplyOn),
          ];
        },
        bands,
      },
      dials: boostCurveEntry<Unit>({
        names: layout.names,
        setup: layout.setup,
        outputBand: ({ unit, workshopLimits }, input, vacuum) =>
          layout.outputBand(unit, { input, vacuum }, workshopLimits),
        cutIn: layout.cutIn,
      }),
    },
    analyse: (trace, context) => analyseBoostCurve(trace, context, layout.setup(context.unit)),
    limits: layout.limits,
    pictures: [layout.picture],
  };
}
