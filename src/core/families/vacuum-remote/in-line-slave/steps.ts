import type { StepDefinition } from '../../../procedure/step-definition';
import { boostCurve } from './in-line-curve';
import { gaugeAgreement } from './gauge-agreement-step';
import type { InLineUnit } from './geometry';
import { residualLimit } from './residual-limit';
import { leakLook, lookOver } from './look-steps';
import { pressureHoldSteps } from '../steps/pressure-hold-steps';
import { outputAt } from './quasi-static';
import { releaseStep } from '../steps/release-step';
import { vacuumNow } from '../steps/step-parts';
import { stopLampSwitch } from '../steps/stop-lamp-step';
import { remoteVacuumSteps } from '../steps/vacuum-steps';

const holds = pressureHoldSteps<InLineUnit>({
  held: { channel: 'output_pressure', decay: 'output-decay-rate' },
  why: 'Held at full assist: falling output is a leak, rising input a seal that lets fluid back.',
  withInputCreep: true,
  outputBand: (context, input) => {
    const output = outputAt(context.unit, input, vacuumNow(context));
    return { output_pressure: [output * 0.9, output * 1.1] };
  },
});

const release = releaseStep<InLineUnit>({
  channel: 'output_pressure',
  residual: 'residual-output',
  output: {},
  why: 'The pressure must fall at once and to nothing: what stays drags the brakes.',
  limit: residualLimit,
});

const vacuum = remoteVacuumSteps<InLineUnit>(['fluid-jet']);

/** Bench order, and it is that order: nothing boosted before the gauges are known and the seals have held. */
export const vacuumRemoteSteps: readonly StepDefinition<InLineUnit>[] = [
  lookOver,
  stopLampSwitch,
  gaugeAgreement,
  holds.low,
  vacuum.draw,
  vacuum.holdAtRest,
  boostCurve,
  vacuum.holdApplied,
  holds.high,
  leakLook,
  release,
];
