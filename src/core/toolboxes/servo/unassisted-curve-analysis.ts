import { fitLine, type LineFit } from '../../fitting/line';
import { random, systematic } from '../../instruments/uncertainty';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence } from '../../procedure/evidence';
import { fewestOnLine, followLever, pullEvidence, type PullFound, type ShownPull } from '../../procedure/pull-evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { StepContext } from '../../procedure/step-context';
import { scatterOf } from '../../traces/own-samples';
import { movingMean } from '../../traces/smoothing';
import type { Trace } from '../../traces/trace';
import { findPush, gaugeParts, highestOf, total, zeroed, type PushLever } from './servo-push';

const { hypot, max, sqrt } = Math;

type Context = StepContext<unknown>;

/**
 * Slope (Pa/N at the lever) of a push without assist. Needs the lever's force and `output_pressure`; `expectedAt` gives the
 * unassisted output (Pa gauge) at a force, so that the part below the springs is left out.
 */
export function analyseUnassistedCurve(
  trace: Trace,
  context: Context,
  setup: PushLever & {
    readonly expectedAt: (force: number) => number;
    /** What must be off: its channel, and what counts as nothing of it, SI. */
    readonly off: { readonly channel: string; readonly most: number };
  },
): Answered {
  const { off } = setup;
  const question: Question<Context, PullFound, ShownSlope> = {
    characteristics: ['unassisted-slope'],
    happened: (read) => findPush(read, context, setup),
    shows: (found) => {
      const judged = pullEvidence(found);
      if (judged.kind === 'none') return judged;
      const { trace: rows, pull } = judged.found;
      const left = highestOf(rows, off.channel, pull);
      if (left !== null && left > off.most) return noEvidence({ code: 'supply-not-off', channel: off.channel, left });
      const line = unassistedLine(judged.found, context, setup);
      if (line.count < fewestOnLine)
        return noEvidence({
          code: 'too-few-samples',
          channel: 'output_pressure',
          samples: line.count,
          needed: fewestOnLine,
        });
      if (line.termination !== 'converged' || line.slope <= 0)
        return noEvidence({ code: 'fit-failed', termination: line.termination });
      // A slope that is too steep may be assist that nobody recorded.
      return evidence({ line, peak: pull.peak }, left === null ? [{ code: 'supply-missing' }] : []);
    },
    comesTo: ({ line, peak }) => {
      const relative = hypot(
        total(gaugeParts(setup.lever, peak, context)) / peak,
        total(gaugeParts('output_pressure', line.slope * peak, context)) / (line.slope * peak),
      );
      const slope = measured('unassisted-slope', line.slope, [
        random('fit', sqrt(line.slopeVariance)),
        systematic('gauge-gain', line.slope * relative),
      ]);
      return { characteristics: [slope], events: [], notes: [] };
    },
  };
  return answer(question, trace, context);
}

/** The line of a push without assist, and the top of the push (N). */
interface ShownSlope {
  readonly line: LineFit;
  readonly peak: number;
}

function unassistedLine(
  shown: Evidence<ShownPull>,
  context: Context,
  setup: PushLever & { readonly expectedAt: (force: number) => number },
): LineFit {
  const { trace: rows, pull } = shown;
  const from = pull.zero ?? 0;
  const straight = { topFrom: from + 0.5 * (pull.peak - from) };
  const push = zeroed(rows, followLever(shown, 'output_pressure', straight, context.instruments), context, setup);
  const smooth = movingMean(push.output, 8);
  const floor = max(6 * scatterOf({ value: push.output }), 0.08 * setup.expectedAt(pull.peak));
  return fitLine(push.force, push.output, { ...push.pull.apply, keep: (i) => smooth[i] > floor });
}
