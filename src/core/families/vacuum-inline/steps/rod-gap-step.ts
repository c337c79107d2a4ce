import { differenceComponents, differenceResolution, random } from '../../../instruments/uncertainty';
import { measured, nothingMeasured } from '../../../procedure/analysis-result';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { TypedStep } from '../../../procedure/step-definition';
import type { TypedField, TypedValues } from '../../../procedure/typed-entry';
import type { InlineCondition } from '../unit/faults';
import type { VacuumInlineUnit } from '../unit/geometry';
import type { Context } from './step-parts';

/** What the stand-in's parts measure where the sheet does not say, m. */
const pocketDepth = 14.2e-3;
const standOff = 3.1e-3;
/** Middle of the allowed gap where the sheet gives none, m. */
const usualGap = 0.6e-3;
/** Division of the stand-in's depth gauge, m. */
const division = 0.05e-3;
/** A straight-edge and depth gauge repeat to about this, m. */
const handling = 0.03e-3;

function allowedGap(context: Context): { low: number; high: number } | null {
  const { rodGapMinMm, rodGapMaxMm } = context.unit.spec;
  return rodGapMinMm === undefined || rodGapMaxMm === undefined
    ? null
    : { low: rodGapMinMm * 1e-3, high: rodGapMaxMm * 1e-3 };
}

/** A correct gap, m: the middle of what the sheet allows. */
export function middleGap(context: Context): number {
  const allowed = allowedGap(context);
  return allowed ? (allowed.low + allowed.high) / 2 : usualGap;
}

function fields(context: Context, values: TypedValues): readonly TypedField[] {
  const allowed = allowedGap(context);
  const depth = values['pocket-depth'];
  const off = values['stand-off'];
  const protrusion =
    allowed && depth !== undefined && off !== undefined
      ? { low: depth - off - allowed.high, high: depth - off - allowed.low }
      : null;
  const common = { as: 'length', channel: 'rod_travel', optional: false } as const;
  return [
    {
      ...common,
      id: 'pocket-depth',
      title: 'Pocket depth',
      hint: 'In the master cylinder’s piston, from the face of its flange',
      expected: null,
      plausible: [1e-3, 80e-3],
    },
    {
      ...common,
      id: 'stand-off',
      title: 'Stand-off',
      hint: 'What the flange stands proud of its seat: gasket, spigot; 0 if flush',
      expected: null,
      plausible: [0, 40e-3],
    },
    {
      ...common,
      id: 'protrusion',
      title: 'Rod protrusion',
      hint: 'From the mounting face, with the rated vacuum on the unit',
      expected: protrusion,
      plausible: [-20e-3, 80e-3],
    },
  ];
}

/** gap = (pocket depth − stand-off) − protrusion, m; three readings of one depth gauge. */
function analyse(values: TypedValues, context: Context): StepAnalysis {
  const { 'pocket-depth': depth, 'stand-off': off, protrusion } = values;
  if (depth === undefined || off === undefined || protrusion === undefined)
    return nothingMeasured(['rod-gap'], { code: 'not-read' });
  const instrument = context.instruments.get('rod_travel');
  const parts = [depth, off, protrusion].flatMap((reading) =>
    instrument ? [differenceResolution(instrument), ...differenceComponents(instrument, 0, reading, context.date)] : [],
  );
  return {
    characteristics: [
      measured('rod-gap', depth - off - protrusion, [...parts, random('noise', handling * Math.sqrt(3))]),
    ],
    events: [],
    notes: [],
  };
}

export const rodGap: TypedStep<VacuumInlineUnit, InlineCondition> = {
  id: 'rod-gap',
  kind: 'typed',
  title: 'Output-rod gap',
  why: 'Too little gap holds the compensating port shut and the brakes drag; too much is lost travel.',
  minutes: 4,
  cautions: ['stored-vacuum'],
  optional: false,
  characteristics: ['rod-gap'],
  feeds: {
    dials: { fields, analyse },
    standIn: (context, condition, random) => {
      const gap = middleGap(context);
      const shown = (length: number) => Math.round((length + handling * random.normal()) / division) * division;
      return {
        'pocket-depth': shown(pocketDepth),
        'stand-off': shown(standOff),
        protrusion: shown(pocketDepth - standOff - gap - condition.rodGapShift),
      };
    },
  },
  limits: (_analysis, context) => {
    const allowed = allowedGap(context);
    // Every maker has his own gap: without one on the sheet it is measured, not judged.
    return allowed === null
      ? []
      : [
          {
            characteristic: 'rod-gap',
            low: allowed.low,
            high: allowed.high,
            expected: (allowed.low + allowed.high) / 2,
            standard: 0,
            source: { kind: 'sheet', field: 'rodGapMinMm' },
          },
        ];
  },
};
