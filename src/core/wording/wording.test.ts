import '../families';
import fc from 'fast-check';
import { unitOf } from '../quantities/measurement-unit';
import {
  decimalsFor,
  displayUnits,
  displayUnitSets,
  figure,
  liveFigure,
  referenceOf,
  shownUnit,
  withUnit,
} from './display';
import { shownAs } from '../quantities/shown-as';
import { analysisProblemText } from './problem-text';
import { checkReason, limitText, remedyText } from './check-text';
import type { Check } from '../judging/judge-step';

const kpa = displayUnits('kpa');

import { channels } from '../quantities/channels';

describe('channels', () => {
  it('each have a name of their own for the screen', () => {
    const titles = channels.map((channel) => channel.title);
    expect(new Set(titles).size).toBe(titles.length);
  });
});

describe('figures', () => {
  it('show U with two significant figures and the value to the same place', () => {
    expect(figure(1_776_300, unitOf('MPa'), 10_200)).toBe('1.776 ± 0.010');
    expect(figure(2.19364, unitOf('1'), 0.0181)).toBe('2.194 ± 0.018');
    expect(figure(3200, unitOf('kPa'), 200)).toBe('3.20 ± 0.20');
    expect(figure(7368e-6 / 60, unitOf('cm3/min'), 741e-6 / 60)).toBe('7370 ± 740');
    expect(figure(123_456, unitOf('N'), 8_900)).toBe('123500 ± 8900');
    expect(figure(8000, unitOf('N'))).toBe('8000');
    expect(figure(12_345, unitOf('N'))).toBe('12345');
  });

  it('never show more than U carries, and never a value further from itself than half of U’s last place', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.double({ min: -4, max: 5, noNaN: true }),
        (value, power) => {
          const expanded = 10 ** power;
          const [shown, u] = figure(value, unitOf('N'), expanded).replace('−', '-').split(' ± ').map(Number);
          const significant = u.toExponential().replace(/e.*$/, '').replace('.', '').replace(/^-/, '');
          expect(significant.length).toBeLessThanOrEqual(2);
          expect(Math.abs(u / expanded - 1)).toBeLessThan(0.051);
          const place = 10 ** (Math.floor(Math.log10(expanded)) - 1);
          expect(Math.abs(shown - value)).toBeLessThanOrEqual(0.5001 * Math.max(place, 1e-6));
        },
      ),
    );
  });

  it.each(
    displayUnitSets.flatMap((set) =>
      (['gauge', 'vacuum', 'force', 'length'] as const).map((as) => [set.id, as, set] as const),
    ),
  )('in %s a %s gives back what it was given, within U', (_id, as, set) => {
    const unit = shownUnit(as, set);
    const si = 123.4 * unit.factor;
    const [shown, u] = figure(si, unit, 0.03 * si)
      .split(' ± ')
      .map(Number);
    expect(Math.abs(shown - 123.4)).toBeLessThan(u);
  });

  it('never show a minus before a zero, and use a true minus before anything else', () => {
    expect(figure(-0.0001, unitOf('kPa'), 500)).toBe('0.00 ± 0.50');
    expect(figure(-170, unitOf('kPa'), 470)).toBe('−0.17 ± 0.47');
    expect(liveFigure(-20, unitOf('kPa'))).toBe('0.0');
    expect(liveFigure(Number.NaN, unitOf('kPa'))).toBe('–');
  });

  it('have a sensible number of decimals for anything', () => {
    expect(decimalsFor(0, null)).toBe(2);
    expect(decimalsFor(5, Number.POSITIVE_INFINITY)).toBe(2);
    expect(decimalsFor(1e-12, 1e-14)).toBe(6);
    expect(decimalsFor(12345, 2000)).toBe(-2);
    expect(decimalsFor(12345, null)).toBe(0);
  });

  it('carry unit and reference', () => {
    expect(withUnit(2.6e6, 'gauge', displayUnits('bar'))).toBe('26.0 bar');
    expect(shownUnit(shownAs('supply_vacuum'), displayUnits('psi')).symbol).toBe('inHg');
    expect(referenceOf(shownAs('run-out-input'))).toBe('gauge');
    expect(referenceOf(shownAs('control-remainder'))).toBe('vacuum');
    expect(referenceOf(shownAs('hysteresis'))).toBe('');
    expect(displayUnits('no such set')).toBe(displayUnitSets[0]);
  });
});

describe('sentences', () => {
  it('a missing run-out says how far to pull', () => {
    expect(analysisProblemText({ code: 'run-out-not-reached', by: 3e5, peak: 1.5e6 }, kpa)).toBe(
      'Run-out not reached by 0.300 MPa: pull beyond 1.80 MPa.',
    );
  });

  const check = (over: Partial<Check>): Check => ({
    characteristic: 'vacuum-loss',
    guard: 100,
    verdict: { kind: 'pass' },
    limit: {
      characteristic: 'vacuum-loss',
      low: null,
      high: 3300,
      expected: 0,
      standard: 0,
      source: { kind: 'workshop', key: 'vacuumLoss' },
    },
    ...over,
  });

  it('a check says its limit and why', () => {
    expect(limitText(check({}), kpa)).toBe('at most 3.30 kPa');
    expect(checkReason(check({}), kpa)).toContain('inside at most 3.30 kPa');
    expect(checkReason(check({ verdict: { kind: 'fail', side: 'high' } }), kpa)).toBe('above at most 3.30 kPa');
    const between = check({ limit: { ...check({}).limit, low: 1000 } });
    expect(limitText(between, kpa)).toBe('1.00 to 3.30 kPa');
    expect(checkReason({ ...between, verdict: { kind: 'fail', side: 'low' } }, kpa)).toContain('below');
    expect(limitText(check({ limit: { ...check({}).limit, low: 1000, high: null } }), kpa)).toBe('at least 1.00 kPa');
  });

  it('an undecided check says what would decide it', () => {
    expect(remedyText({ kind: 'repeats', count: 3 }, kpa)).toContain('3 repeats');
    expect(remedyText({ kind: 'better-gauge', factor: 1.6 }, kpa)).toContain('1.6 times');
    expect(
      checkReason(
        check({ verdict: { kind: 'undecided', remedies: [{ kind: 'measure-again', because: { code: 'no-boost' } }] } }),
        kpa,
      ),
    ).toContain('no boost');
  });
});
