import { goneNow } from '../../procedure/interlock';
import { differenceResolution, random } from '../../instruments/uncertainty';
import { measured, nothingMeasured } from '../../procedure/analysis-result';
import { atMost, limitFrom } from '../../procedure/limit';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { TypedStep } from '../../procedure/step-definition';
import type { TypedField } from '../../procedure/typed-entry';
import type { StoredPressureCondition } from './faults';
import type { StoredPressureUnit } from './geometry';

type Typed = TypedStep<StoredPressureUnit, StoredPressureCondition>;

export const rideHeight: Typed = {
  id: 'ride-height',
  kind: 'typed',
  title: 'Ride height on its springs',
  why: 'Links off, the springs alone must carry the vehicle. If it sinks, weak springs were propped on the hydraulics, and the circuit cycles for ever.',
  minutes: 10,
  cautions: ['levelling-drops', 'rigid-stands', 'stored-pressure'],
  optional: false,
  characteristics: ['height-loss'],
  interlock: goneNow('pressure'),
  feeds: {
    dials: {
      fields: (context): readonly TypedField[] => {
        const height = (id: string, title: string, hint: string): TypedField => ({
          id,
          title,
          hint,
          as: 'length',
          channel: 'tape_height',
          expected: null,
          plausible: [0.05, 0.9],
          optional: false,
        });
        void context;
        return [
          height('before', 'Height, links on', 'Hub centre to wing edge, before the system was made dead'),
          height('after', 'Height, links off', 'The same place, on its springs alone'),
        ];
      },
      analyse: (values, context): StepAnalysis => {
        const { before, after } = values;
        if (before === undefined || after === undefined) return nothingMeasured(['height-loss'], { code: 'not-read' });
        const instrument = context.instruments.get('tape_height');
        return {
          characteristics: [
            measured('height-loss', before - after, [
              // A tape at a wheel arch is read to a millimetre or so.
              random('noise', 1e-3),
              ...(instrument ? [differenceResolution(instrument)] : []),
            ]),
          ],
          events: [],
          notes: [],
        };
      },
    },
    standIn: (_context, { heightLoss }, source) => {
      const round = (value: number) => Math.round(value * 2000) / 2000;
      const before = 0.384 + 0.001 * source.normal();
      return { before: round(before), after: round(before - heightLoss + 0.0005 * source.normal()) };
    },
  },
  limits: (_analysis, { unit, workshopLimits }) => [
    atMost(
      'height-loss',
      limitFrom(
        {
          field: 'heightLossMaxMm',
          value: unit.spec.heightLossMaxMm === undefined ? undefined : unit.spec.heightLossMaxMm * 1e-3,
        },
        { key: 'heightLoss', value: workshopLimits.heightLoss },
      ),
      { expected: 0 },
    ),
  ],
};
