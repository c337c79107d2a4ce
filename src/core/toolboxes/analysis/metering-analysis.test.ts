import fc from 'fast-check';
import { makeTrace } from '../../traces/trace';
import { randomSource } from '../../physics/random';
import { kindNamed } from '../../families';
import { contextAt } from '../../formats/site-file';
import { checkKind } from '../../formats/unit-sheet';
import { expandedUncertainty } from '../../instruments/uncertainty';
import { analyseMetering, type MeteringSetup } from './metering-analysis';
import { estimateOf } from '../../procedure/analysis-result';

const kind = kindNamed('pedal-valve');
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 1420 }, '2026-11-23');

const byAngle: MeteringSetup = {
  lever: 'pedal_angle',
  supply: { channels: [], least: 0 },
  ids: {
    cutIn: 'cut-in-travel',
    slope: 'modulation-slope',
    maximum: 'regulated-maximum',
    hysteresis: 'angle-hysteresis',
  },
};

const byForce: MeteringSetup = {
  lever: 'pedal_force',
  supply: { channels: [], least: 0 },
  ids: { cutIn: 'cut-in-force', slope: 'metering-slope', maximum: null, hysteresis: null },
};

interface Valve {
  readonly cutIn: number;
  readonly slope: number;
  readonly maximum: number;
  readonly hysteresis: number;
  /** Front minus rear at the regulated maximum, Pa, growing from nothing. */
  readonly apart: number;
}

const plain: Valve = { cutIn: 4, slope: 0.5e6, maximum: 8e6, hysteresis: 1, apart: 0.2e6 };

interface Press {
  readonly top: number;
  readonly noise?: number;
  readonly wayBack?: boolean;
  readonly frontZero?: number;
}

/** One slow press and its way back, at 100 Hz. */
function press(valve: Valve, { top, noise = 0, wayBack = true, frontZero = 0 }: Press) {
  const random = randomSource(4);
  const rate = 100;
  const seconds = { rest: 2, press: 20, hold: 2, back: wayBack ? 18 : 0, after: wayBack ? 2 : 0 };
  const total = seconds.rest + seconds.press + seconds.hold + seconds.back + seconds.after;
  const time = Float64Array.from({ length: Math.round(total * rate) }, (_, i) => i / rate);
  let highest = 0;
  const lever = time.map((t) => {
    const up = (top * (t - seconds.rest)) / seconds.press;
    const gone = t - seconds.rest - seconds.press - seconds.hold;
    return Math.max(0, Math.min(top, up, gone > 0 ? top * (1 - gone / seconds.back) : top));
  });
  const front = lever.map((at) => {
    highest = Math.max(highest, at);
    const effective = Math.max(Math.min(highest, at + valve.hysteresis), at);
    return Math.max(0, Math.min(valve.maximum, valve.slope * (effective - valve.cutIn)));
  });
  const rear = front.map((value) => value - (valve.apart * value) / valve.maximum);
  const noisy = (column: Float64Array, zero: number) => column.map((value) => value + zero + noise * random.normal());
  return { time, lever, front: noisy(front, frontZero), rear: noisy(rear, 0) };
}

const traceOf = (pressed: ReturnType<typeof press>, lever: MeteringSetup['lever'] = 'pedal_angle') =>
  makeTrace(pressed.time, { [lever]: pressed.lever, front_pressure: pressed.front, rear_pressure: pressed.rear });

describe('modulation curve of two circuits', () => {
  it('gives cut-in, slope, regulated maximum, hysteresis and difference of a valve that is a straight line', () => {
    fc.assert(
      fc.property(
        fc.record({
          cutIn: fc.double({ min: 2, max: 6, noNaN: true }),
          slope: fc.double({ min: 0.3e6, max: 0.9e6, noNaN: true }),
          maximum: fc.double({ min: 5e6, max: 9e6, noNaN: true }),
          hysteresis: fc.double({ min: 0.2, max: 1.5, noNaN: true }),
          apart: fc.double({ min: 0, max: 1e6, noNaN: true }),
        }),
        (valve) => {
          const top = valve.cutIn + valve.maximum / valve.slope + 3;
          const analysis = analyseMetering(traceOf(press(valve, { top })), context, byAngle);
          const value = (id: Parameters<typeof estimateOf>[1]) => estimateOf(analysis, id)?.value ?? Number.NaN;
          expect(value('cut-in-travel')).toBeCloseTo(valve.cutIn, 2);
          expect(value('modulation-slope') / valve.slope).toBeCloseTo(1, 3);
          expect(value('regulated-maximum') / valve.maximum).toBeCloseTo(1, 3);
          expect(Math.abs(value('angle-hysteresis') - valve.hysteresis)).toBeLessThan(0.03);
          expect(Math.abs(value('circuit-difference') - valve.apart)).toBeLessThan(0.01 * valve.maximum);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('takes a gauge’s zero off, and noise widens what it states', () => {
    const quiet = analyseMetering(traceOf(press(plain, { top: 24, frontZero: 90e3 })), context, byAngle);
    const noisy = analyseMetering(traceOf(press(plain, { top: 24, noise: 60e3 })), context, byAngle);
    expect(estimateOf(quiet, 'regulated-maximum')?.value).toBeCloseTo(8e6, -4);
    expect(estimateOf(quiet, 'cut-in-travel')?.value).toBeCloseTo(4, 1);
    const fitOf = (analysis: typeof quiet) =>
      estimateOf(analysis, 'modulation-slope')!.components.find((part) => part.source === 'fit')!.standard;
    expect(fitOf(noisy)).toBeGreaterThan(5 * fitOf(quiet));
    const slope = estimateOf(noisy, 'modulation-slope')!;
    expect(Math.abs(slope.value - plain.slope)).toBeLessThan(expandedUncertainty(slope));
  });

  it('says where along the pedal the circuits are furthest apart', () => {
    const analysis = analyseMetering(traceOf(press({ ...plain, apart: 0.6e6 }, { top: 24 })), context, byAngle);
    const note = analysis.notes.find((each) => each.code === 'circuits-differ-at');
    expect(note).toMatchObject({ channel: 'pedal_angle' });
    // The difference grows up to the regulated maximum, which is reached at 20°.
    expect((note as { at: number }).at).toBeGreaterThan(19);
  });

  it('a press that ends short of the regulated maximum gives the slope, and no maximum', () => {
    const analysis = analyseMetering(traceOf(press(plain, { top: 15 })), context, byAngle);
    expect(estimateOf(analysis, 'modulation-slope')!.value / plain.slope).toBeCloseTo(1, 2);
    expect(analysis.characteristics.find((each) => each.id === 'regulated-maximum')).toMatchObject({
      kind: 'absent',
      problem: { code: 'relief-not-reached' },
    });
  });

  it('a press without a way back has no hysteresis, and says so', () => {
    const analysis = analyseMetering(traceOf(press(plain, { top: 24, wayBack: false })), context, byAngle);
    expect(analysis.characteristics.find((each) => each.id === 'angle-hysteresis')).toMatchObject({
      kind: 'absent',
      problem: { code: 'no-way-back' },
    });
    expect(estimateOf(analysis, 'regulated-maximum')).toBeDefined();
  });

  it('by force it gives cut-in and slope alone', () => {
    const pressed = press({ ...plain, cutIn: 40, slope: 20e3, maximum: 99e6, hysteresis: 0 }, { top: 300 });
    const analysis = analyseMetering(traceOf(pressed, 'pedal_force'), context, byForce);
    expect(analysis.characteristics.map((each) => each.id)).toEqual([
      'cut-in-force',
      'metering-slope',
      'circuit-difference',
    ]);
    expect(estimateOf(analysis, 'cut-in-force')?.value).toBeCloseTo(40, 0);
    expect(estimateOf(analysis, 'metering-slope')!.value / 20e3).toBeCloseTo(1, 3);
  });

  it.each([
    ['pedal_angle', 'pedal_angle'],
    ['front_pressure', 'front_pressure'],
  ])('without %s nothing is measured, and the channel is named', (gone, channel) => {
    const pressed = press(plain, { top: 24 });
    const columns: Record<string, Float64Array> = {
      pedal_angle: pressed.lever,
      front_pressure: pressed.front,
      rear_pressure: pressed.rear,
    };
    delete columns[gone];
    const analysis = analyseMetering(makeTrace(pressed.time, columns), context, byAngle);
    for (const each of analysis.characteristics)
      expect(each).toMatchObject({ kind: 'absent', problem: { code: 'channel-missing', channel } });
  });

  it('without the rear gauge only the difference is missing', () => {
    const pressed = press(plain, { top: 24 });
    const trace = makeTrace(pressed.time, { pedal_angle: pressed.lever, front_pressure: pressed.front });
    const analysis = analyseMetering(trace, context, byAngle);
    expect(analysis.characteristics.filter((each) => each.kind === 'absent').map((each) => each.id)).toEqual([
      'circuit-difference',
    ]);
  });
});
