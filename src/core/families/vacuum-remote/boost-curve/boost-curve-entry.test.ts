import { entryOf } from '../../../dials/characteristic-entry';
import fc from 'fast-check';
import { standInUnit } from '../../../../../tests/support/stand-in-unit';
import { asDials } from '../../../dials/default-dial';
import { expandedUncertainty } from '../../../instruments/uncertainty';
import { evaluateStep } from '../../../judging/evaluate-unit';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { TypedValues } from '../../../procedure/typed-entry';

const bench = standInUnit<{ referenceInput: number; a: number }>('vacuum-remote', 'bench');
const step = bench.kind.steps.find((each) => each.id === 'boost-curve') as MeasuredStep<unknown>;
const context = { ...bench.context, instruments: asDials(bench.context.instruments) };
const limits = step.limits({ characteristics: [], events: [], notes: [] }, context);
const expected = (id: string) => limits.find((each) => each.characteristic === id)!.expected!;
const round = (value: number, division: number) => Math.round(value / division) * division;

interface Curve {
  readonly cutIn: number;
  readonly ratio: number;
  readonly runOut: number;
  readonly play: number;
}

const sound: Curve = {
  cutIn: expected('cut-in-pressure'),
  ratio: expected('boost-ratio'),
  runOut: expected('run-out-input'),
  play: expected('hysteresis'),
};

/** Output (Pa) of a curve at an input (Pa) with so much of the play taken up. */
function outputOf(curve: Curve, input: number, play: number): number {
  const reference = bench.unit.referenceInput;
  const slope = (curve.ratio * reference - curve.cutIn) / (reference - curve.cutIn);
  const felt = input + play;
  if (felt <= curve.cutIn) return input;
  const line = curve.cutIn + slope * (Math.min(felt, curve.runOut) - curve.cutIn);
  // Beyond run-out the fluid alone pushes: the geometry's slope.
  return felt <= curve.runOut ? line : line + bench.unit.a * (felt - curve.runOut);
}

/** What two dials of 0.1 MPa show of a curve at the points that are asked for, `wrong` added to one of the outputs. */
function read(curve: Curve, wrong: { readonly at: number; readonly by: number } | null = null): TypedValues {
  const output = (input: number, play: number) => outputOf(curve, input, play);
  let values: Record<string, number> = { 'supply-rest': 58e3 };
  for (const field of entryOf(step).fields(context, values)) {
    const now = entryOf(step)
      .fields(context, values)
      .find((each) => each.id === field.id)!;
    const [kind, place] = field.id.split('-');
    if (kind === 'input') values = { ...values, [field.id]: round((now.expected!.low + now.expected!.high) / 2, 1e5) };
    else if (kind === 'output' && place !== 'rest') {
      const input = values[`input-${place}`];
      const shown =
        output(input, place === 'back' ? curve.play : 0) + (wrong && String(wrong.at) === place ? wrong.by : 0);
      values = { ...values, [field.id]: round(shown, 1e5) };
    }
  }
  return { ...values, 'supply-pulled': 57e3, 'control-pulled': 0, 'output-rest': 0 };
}
const judged = (values: TypedValues) =>
  evaluateStep(bench.kind, step, [{ analysed: () => entryOf(step).analyse(values, context) }], {
    context,
    policy: 'guarded',
  });
const failed = (values: TypedValues) =>
  judged(values)
    .checks.filter((check) => check.verdict.kind === 'fail')
    .map((check) => check.characteristic);

describe('a boost curve read off two dials at a few points', () => {
  it('finds cut-in, ratio and run-out of any unit within what it says of them', () => {
    const spread = (low: number, high: number) => fc.double({ min: low, max: high, noNaN: true });
    fc.assert(
      fc.property(spread(0.9, 1.15), spread(0.85, 1.1), spread(0.9, 1.1), (cutIn, ratio, runOut) => {
        const curve = {
          cutIn: sound.cutIn * cutIn,
          ratio: sound.ratio * ratio,
          runOut: sound.runOut * runOut,
          play: sound.play,
        };
        const { characteristics } = entryOf(step).analyse(read(curve), context);
        const truth: Record<string, number> = {
          'cut-in-pressure': curve.cutIn,
          'boost-ratio': outputOf(curve, bench.unit.referenceInput, 0) / bench.unit.referenceInput,
          'run-out-input': curve.runOut,
        };
        for (const found of characteristics) {
          if (!(found.id in truth) || found.kind !== 'measured') continue;
          expect([
            found.id,
            Math.abs(found.estimate.value - truth[found.id]) <= expandedUncertainty(found.estimate),
          ]).toEqual([found.id, true]);
        }
        expect(characteristics.find((each) => each.id === 'boost-ratio')?.kind).toBe('measured');
      }),
      { numRuns: 60 },
    );
  });

  it('fails no sound unit, and fails one whose ratio or run-out is far off', () => {
    expect(failed(read(sound))).toEqual([]);
    expect(failed(read({ ...sound, ratio: 0.6 * sound.ratio }))).toContain('boost-ratio');
    expect(failed(read({ ...sound, runOut: 0.55 * sound.runOut }))).toContain('run-out-input');
  });

  it.each([
    [2, 1.5e6],
    [4, 12e6],
    [4, -2e6],
    [5, 9e6],
    [1, -0.4e6],
  ])('asks for point %d again where it is off by %d Pa, and judges nothing by it meanwhile', (at, by) => {
    const off = read(sound, { at, by });
    const { characteristics } = entryOf(step).analyse(off, context);
    const slope = characteristics.find((each) => each.id === 'boost-slope');
    expect(slope).toMatchObject({ kind: 'absent', problem: { code: 'point-off-line' } });
    expect(judged(off).verdict).toBe('undecided');
  });

  it('a unit that passes the fluid through without help has no cut-in', () => {
    const values = read({ ...sound, cutIn: 20e6 });
    expect(judged(values).verdict).not.toBe('pass');
    const found = entryOf(step)
      .analyse(values, context)
      .characteristics.find((each) => each.id === 'cut-in-pressure');
    expect(found).toMatchObject({ kind: 'absent', problem: { code: 'no-boost' } });
  });
});
