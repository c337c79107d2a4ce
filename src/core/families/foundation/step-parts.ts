import { footForPressure } from '../../calculators/brake-force';
import { home, wait, type GuidePhase } from '../../procedure/guide-phase';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import { soundRatio, type FoundationUnit } from './geometry';

export type Context = StepContext<FoundationUnit>;
export type Measured = MeasuredStep<FoundationUnit>;

export const pedal = 'pedal_force';

/** Foot that a pair of pushes, and a look at both axles, are made with, N. */
export const firmFoot = 200;

export const engineOn: GuidePhase['controls'] = { engine: 1 };
export const engineOff: GuidePhase['controls'] = {};

export const startEngine = (seconds: number): GuidePhase => ({
  instruction: { code: 'start-engine', seconds },
  controls: engineOn,
  lever: home,
  end: { kind: 'seconds', seconds },
});

export const stopEngine = (seconds: number): GuidePhase => ({
  instruction: { code: 'stop-engine', seconds },
  controls: engineOff,
  lever: home,
  end: { kind: 'seconds', seconds },
});

/** Presses to a level, holds it for `seconds`, and lets go. */
export function pressAndHold(level: number, seconds: number, controls: GuidePhase['controls']): GuidePhase[] {
  return [
    {
      instruction: { code: 'pull-to-hold', channel: pedal, level, seconds: 1 },
      controls,
      lever: { to: level, seconds: 1.2 },
      end: { kind: 'input-held', level, tolerance: 0.05 * level, seconds: 1 },
    },
    wait({ code: 'hold-there', seconds }, controls, seconds, level),
    {
      instruction: { code: 'let-back-slowly', channel: pedal },
      controls,
      lever: { to: 0, seconds: 0.6 },
      end: { kind: 'input-below', level: 10 },
    },
    wait({ code: 'rest', seconds: 1.5 }, controls, 1.5),
  ];
}

/** Pedal force (N) that brings a pressure (Pa gauge) with the assist up. */
export const assistedFoot = (unit: FoundationUnit, pressure: number): number =>
  footForPressure(unit.master, pressure / soundRatio(unit));
