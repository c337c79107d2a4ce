import { defaultInstruments } from '../instruments/default-instruments';
import type { InLineUnit } from './vacuum-remote/in-line-slave/geometry';
import { outputAt } from './vacuum-remote/in-line-slave/quasi-static';
import { everyKind } from './';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { expandedUncertainty } from '../instruments/uncertainty';
import { evaluateUnit } from '../judging/evaluate-unit';
import { characteristicRow, everyCharacteristic, type CharacteristicId } from '../quantities/characteristics';
import { findChannel } from '../quantities/channels';
import { unitOf } from '../quantities/measurement-unit';
import type { MeasuredStep } from '../procedure/step-definition';
import { limitFrom } from '../procedure/limit';
import { toleranceBand } from '../pictures/tolerance-band';
import { analysisFromTyped } from '../dials/typed-values';
import { turningPoint, vacuumAlongPull } from '../pictures/vacuum-along-pull';

const [kind] = everyKind;
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 1420, benchVolumeCm3: 600 }, '2026-11-23');

describe('band of a unit', () => {
  it('lies ± the tolerance around the expected output, corners included', () => {
    const band = toleranceBand(kind.curve, context.unit, () => 60e3, context);
    band.input.forEach((at, i) => {
      const expected = outputAt(context.unit as InLineUnit, at, 60e3);
      expect(band.high[i] + band.low[i]).toBeCloseTo(2 * expected, 3);
      expect(band.high[i] - band.low[i]).toBeCloseTo(0.2 * expected, 3);
    });
    for (const point of band.curve.keyPoints)
      expect(band.input.some((at) => Math.abs(at - point.input) < 1)).toBe(true);
  });

  it('a source of a limit is the sheet where it has a figure, else the workshop', () => {
    const workshop = { key: 'residual', value: 35e3 } as const;
    expect(limitFrom({ field: 'residualMaxKpa', value: 20e3 }, workshop)).toEqual({
      value: 20e3,
      source: { kind: 'sheet', field: 'residualMaxKpa' },
    });
    expect(limitFrom({ field: 'residualMaxKpa', value: undefined }, workshop).source).toEqual({
      kind: 'workshop',
      key: 'residual',
    });
  });
});

describe('vacuum along a pull', () => {
  const input = Float64Array.from({ length: 4000 }, (_, i) => (i < 2000 ? i * 1000 : (4000 - i) * 1000));
  const supply = input.map((_, i) => 60e3 - 5 * i);

  it('is what was there when the pull passed, not the way back, and what was there last beyond', () => {
    expect(turningPoint(input)).toBe(2000);
    const at = vacuumAlongPull(input, supply, { inputEnd: 2.5e6, ahead: 55e3 });
    expect(at(1e6) / (60e3 - 5 * 1000)).toBeCloseTo(1, 2);
    expect(at(2.4e6) / (60e3 - 5 * 2000)).toBeCloseTo(1, 2);
  });

  it('before the vacuum is on everything lies ahead', () => {
    expect(vacuumAlongPull([], [], { inputEnd: 1e6, ahead: 42 })(5e5)).toBe(42);
    expect(
      vacuumAlongPull(
        input,
        supply.map(() => 0),
        { inputEnd: 2.5e6, ahead: 42 },
      )(5e5),
    ).toBe(42);
  });
});

const quotients: Readonly<Record<string, string>> = {
  'pressure/pressure': 'ratio',
  'voltage/voltage': 'ratio',
  'pressure/force': 'slope-per-force',
  'pressure/angle': 'slope-per-angle',
  'force/pressure': 'force-per-pressure',
  'force/length': 'stiffness',
};

const rates: Readonly<Record<string, string>> = { pressure: 'pressure-rate', length: 'creep' };

describe('values typed by hand', () => {
  const steps = kind.steps.filter((step): step is MeasuredStep<unknown> => step.kind === 'measured');

  it.each(steps.flatMap((step) => step.characteristics.map((id) => [step.id, id, step] as const)))(
    '%s %s carries an uncertainty',
    (_step, id, step) => {
      const value = characteristicRow(id).unit === '1' ? 2 : 1e6;
      const analysis = analysisFromTyped(step, new Map([[id, value]]), context);
      const found = analysis.characteristics.find((each) => each.id === id);
      if (found?.kind !== 'measured') throw new Error('expected a value');
      expect(found.estimate.value).toBe(value);
      expect(expandedUncertainty(found.estimate)).toBeGreaterThan(0);
      expect(analysis.characteristics.filter((each) => each.kind === 'absent')).toHaveLength(
        step.characteristics.length - 1,
      );
    },
  );

  it.each(everyCharacteristic().map(([id, row]) => [id, row.dial] as const))(
    '%s is read on a dial, or with a watch, of its own kind',
    (id, how) => {
      const own = unitOf(characteristicRow(id as CharacteristicId).unit).dimension;
      const dial = (channel: string) => unitOf(findChannel(channel)!.fileUnit).dimension;
      switch (how.kind) {
        case 'reading':
        case 'difference':
          return expect(dial(how.channel)).toBe(own);
        case 'between':
          return expect(how.channels.map(dial)).toEqual([own, own]);
        case 'rate':
          return expect(rates[dial(how.channel)]).toBe(own);
        case 'flow':
          return expect([dial(how.channel), own]).toEqual(['pressure', 'volume-flow']);
        case 'watch':
          return expect(own).toBe('time');
        case 'quotient':
          return expect(quotients[how.channels.map(dial).join('/')]).toBe(own);
        case 'share':
          return expect([new Set(how.channels.map(dial)).size, own]).toEqual([1, 'percent']);
        case 'worked-out':
          return expect([how.channels.map(dial), own]).toEqual(
            own === 'energy' ? [['voltage', 'current'], own] : [['torque', 'pressure'], 'ratio'],
          );
        case 'count':
          return expect(own).toBe('ratio');
        case 'calculated':
          return expect(how).toEqual({ kind: 'calculated' });
      }
    },
  );

  it('a flow and a rate are told with an uncertainty that one can work with', () => {
    const shareOf = (id: CharacteristicId, value: number) => {
      const analysis = analysisFromTyped({ kind: 'typed', characteristics: [id] }, new Map([[id, value]]), context);
      const [found] = analysis.characteristics;
      return found.kind === 'measured' ? expandedUncertainty(found.estimate) / value : Number.NaN;
    };
    // 60 kPa a minute off a dial of 1 kPa: 30 kPa in half a minute, read to a division at either end.
    expect(shareOf('output-decay-rate', 1000)).toBeGreaterThan(0.02);
    expect(shareOf('output-decay-rate', 1000)).toBeLessThan(0.05);
    for (const id of ['leak-flow', 'internal-leak-flow', 'pump-speed'] as const) {
      expect(shareOf(id, 1e-6)).toBeGreaterThan(0.1);
      expect(shareOf(id, 1e-6)).toBeLessThan(0.15);
      expect(shareOf(id, 1e-3)).toBeCloseTo(shareOf(id, 1e-6), 9);
    }
  });

  it('are judged like traces: what was not read leaves its step undecided', () => {
    const instruments = new Map(defaultInstruments.map((each) => [each.channel, each]));
    const evaluate = (values: ReadonlyMap<CharacteristicId, number>, named = true) =>
      evaluateUnit(kind, kind.plans[0].steps, [{ kind: 'typed', step: 'release', values }], {
        context: named ? { ...context, instruments } : context,
        policy: 'guarded',
      }).steps.find((step) => step.step === 'release')?.verdict;
    expect(
      evaluate(
        new Map([
          ['release-time', 0.5],
          ['residual-output', 5e3],
        ]),
      ),
    ).toBe('pass');
    expect(
      evaluate(
        new Map([
          ['release-time', 9],
          ['residual-output', 5e3],
        ]),
      ),
    ).toBe('fail');
    expect(evaluate(new Map([['release-time', 0.5]]))).toBe('undecided');
    expect(evaluate(new Map())).toBe('undecided');
    // Nobody reads 5 kPa off a dial of 16 MPa.
    const read = new Map<CharacteristicId, number>([
      ['release-time', 0.5],
      ['residual-output', 5e3],
    ]);
    expect(evaluate(read, false)).toBe('undecided');
  });
});
