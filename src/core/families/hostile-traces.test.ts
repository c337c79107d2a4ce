import fc from 'fast-check';
import { families } from '.';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { expandedUncertainty } from '../instruments/uncertainty';
import { judgeStep } from '../judging/judge-step';
import { makeTrace } from '../traces/trace';
import type { MeasuredStep } from '../procedure/step-definition';

/** A column of a kind that gauges and loggers produce on a bad day. */
const column = (length: number) =>
  fc.oneof(
    fc.constant(new Float64Array(length).fill(Number.NaN)),
    fc.constant(new Float64Array(length)),
    fc.double({ min: -1e7, max: 1e7, noNaN: true }).map((value) => new Float64Array(length).fill(value)),
    fc
      .array(fc.oneof(fc.double({ min: -1e5, max: 2e7, noNaN: true }), fc.constant(Number.NaN)), {
        minLength: length,
        maxLength: length,
      })
      .map((values) => Float64Array.from(values)),
    fc
      .double({ min: 1e3, max: 2e7, noNaN: true })
      .map((top) => Float64Array.from({ length }, (_, i) => top * Math.sin((Math.PI * i) / length))),
    fc
      .double({ min: 1e3, max: 1e6, noNaN: true })
      .map((step) => Float64Array.from({ length }, (_, i) => step * Math.floor(i / 10))),
  );

/** Traces in which every one of the channels is hostile, at any rate, with or without repeated time stamps. */
const tracesOf = (channels: readonly string[]) =>
  fc.integer({ min: 0, max: 400 }).chain((length) =>
    fc
      .record({
        rate: fc.constantFrom(1, 20, 200),
        repeat: fc.boolean(),
        columns: fc.record(Object.fromEntries(channels.map((channel) => [channel, column(length)]))),
      })
      .map(({ rate, repeat, columns }) =>
        makeTrace(
          Float64Array.from({ length }, (_, i) => (repeat ? Math.floor(i / 2) : i) / rate),
          columns,
        ),
      ),
  );

const everyPlan = families
  .flatMap((family) => family.kinds)
  .flatMap((kind) =>
    kind.plans.map((plan) => [`${kind.family} (${kind.curve.outputs[0]}), ${plan.id}`, kind, plan] as const),
  );

describe.each(everyPlan)('hostile traces for %s', (_title, kind, plan) => {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const context = contextAt(checked.value, { altitudeM: 1420, benchVolumeCm3: 600 }, '2026-11-23', plan.id);
  const steps = kind.steps.filter(
    (step): step is MeasuredStep<unknown> => step.kind === 'measured' && plan.steps.includes(step.id),
  );

  it.each(steps.map((step) => [step.id, step] as const))(
    '%s never throws and never gives a number that is none',
    (_step, step) => {
      fc.assert(
        fc.property(tracesOf([...step.feeds.log.needs, ...step.feeds.log.uses]), (trace) => {
          const analysis = step.analyse(trace, context);
          expect(analysis.characteristics.map((each) => each.id).sort()).toEqual([...step.characteristics].sort());
          for (const found of analysis.characteristics) {
            const estimate = found.kind === 'measured' ? found.estimate : found.kind === 'beyond' ? found.bound : null;
            if (estimate === null) continue;
            expect([found.id, Number.isFinite(estimate.value)]).toEqual([found.id, true]);
            expect([found.id, Number.isFinite(expandedUncertainty(estimate))]).toEqual([found.id, true]);
          }
          judgeStep(analysis.characteristics, step.limits(analysis, context), 'guarded');
        }),
        { numRuns: 60, verbose: false, endOnFailure: true },
      );
    },
  );
});
