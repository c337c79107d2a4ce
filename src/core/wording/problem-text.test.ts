import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import { displayUnits, displayUnitSets } from './display';
import { analysisProblemText } from './problem-text';
import { waitText } from './wait-text';

type Code = AnalysisProblem['code'];
type Facts<C extends Code> = Omit<Extract<AnalysisProblem, { code: C }>, 'code'>;

/** One set of facts for every problem there is: a new problem without one does not compile. */
const facts: { readonly [C in Code]: Facts<C> } = {
  'rows-averaged': { rows: 44 },
  'column-too-slow': { channel: 'wheel_pressure_fl', rate: 4.2, needed: 10 },
  'nobody-brakes': {},
  'torque-turned': { channel: 'regen_torque' },
  'drive-left-out': { seconds: 12.3, of: 400 },
  'answer-delayed': { seconds: 0.06 },
  'vehicle-sensors-assumed': { channels: ['wheel_pressure_fl', 'wheel_pressure_fr'] },
  'largest-request': { torque: 3400 },
  'largest-not-known': {},
  'panics-not-told': { rate: 20, needed: 50 },
  'no-panic': { threshold: 0.25 },
  panics: { found: 3, answered: 3 },
  'panic-not-answered': { found: 1 },
  'panic-not-braked': { found: 2 },
  'panic-not-recorded': { found: 1 },
  'no-handover': { high: 4.17, low: 1.39 },
  handovers: { found: 7 },
  'never-full': { highest: 0.71, limit: 0.9 },
  'charge-as-a-share': { highest: 0.94 },
  'too-few-stops': { found: 4, needed: 10 },
  'stops-alike': {},
  'gives-too-much': { gain: 2.1 },
  'friction-too-little': { expanded: 0.8 },
  'open-before-handover': { torque: 180, found: 3, of: 12 },
  'speed-lost': { times: 2, seconds: 0.6 },
  'rows-of-drive': { rows: 60_000, seconds: 1200 },
  'column-rate': {
    channels: ['vehicle_speed', 'pedal_travel'],
    rate: 25,
    gap: 0.08,
    over: { between: 'again', times: 4 },
  },
  'log-lacks': { title: 'Panic stops', channels: ['pedal_travel'] },
  'lowest-while-braking': { channel: 'accumulator_pressure', pressure: 9e6, wheel: 8.7e6 },
  'masters-apart-at': { one: 5.1e6, other: 5.6e6 },
  'lamp-lit': { channel: 'lamp_red', seconds: 14, of: 400 },
  'lamps-mean': { lamps: ['lamp_red', 'buzzer'], seconds: 14, meanings: ['store-pressure'] },
  'no-store-fitted': {},
  'no-lamp-lit': {},
  'switches-alike': {},
  'columns-alike': { one: 'master_pressure', other: 'master_pressure_2' },
  'friction-never-used': {},
  'switch-never-pressed': {},
  'nothing-assisted': {},
  'lamp-lit-for-another': {},
  'behind-from-the-start': { slope: 0.52 },
  'neither-line': { off: 4e5 },
  'engine-not-stopped': {},
  'engine-not-recorded': {},
  'no-split': { reached: 5e6 },
  'lamp-not-recorded': {},
  'one-axle-alone': { lamp: true },
  'calculation-only': { source: 'Light vehicles' },
  'road-limits': { deceleration: 7.84 },
  'never-stops': {},
  'worked-by-the-other': {},
  'no-pull': { channel: 'input_pressure' },
  'not-read': {},
  'rows-still-to-read': { read: 1, needed: 3 },
  'too-quick-for-a-watch': { seconds: 0.5 },
  'no-person-reads': {},
  'foot-not-known': {},
  'half-helped': { strokes: 1 },
  'hose-takes': { idle: 0, held: 12_000 },
  'rows-too-far-on': { channel: 'rod_force', below: 300 },
  'first-movement-contradicts': { channel: 'rod_force', at: 20, low: 80, high: 120 },
  'felt-only': { felt: 'stayed-up' },
  'no-way-back': {},
  'no-rest-before': {},
  'no-rest-after': { seconds: 1 },
  'no-boost': {},
  'run-out-not-reached': { by: 3e5, peak: 1.5e6 },
  'reference-not-reached': { reference: 1.7e6, peak: 1.5e6 },
  'knee-not-reached': { by: 120, peak: 600 },
  'control-port-missing': {},
  'supply-missing': {},
  'valve-opening-not-found': {},
  'too-few-levels': { found: 1, needed: 3 },
  'fit-failed': { termination: 'singular' },
  'switch-never-closed': { peak: 1e6 },
  'switch-never-opened': {},
  'switch-always-closed': {},
  'switch-opens-when-pressed': {},
  'no-hold': { channel: 'output_pressure', seconds: 30 },
  'hold-too-short': { seconds: 4.23, needed: 9 },
  'source-never-opened': { vacuum: 300 },
  'begins-without-vacuum': { vacuum: 300, later: 58_000 },
  'too-little-vacuum': { vacuum: 30e3, needed: 48e3 },
  'source-not-seen-shut': {},
  'begins-in-hold': {},
  'source-reopened': { after: 6.21 },
  'vacuum-collapsed': { after: 7.4 },
  'lever-moved': { after: 5.3 },
  'not-at-rest': {},
  'not-seen-applied': { channel: 'rod_force' },
  'not-applied': { channel: 'rod_force', peak: 120, needed: 900 },
  'side-not-seen-open': {},
  'side-not-opened': { vacuum: 40e3 },
  gains: { channel: 'supply_vacuum', gain: 800 },
  'gauge-frozen': { channel: 'supply_vacuum', seconds: 6.2 },
  'gauge-clipped': { channel: 'supply_vacuum', at: 60e3 },
  'too-few-samples': { channel: 'supply_vacuum', samples: 4, needed: 8 },
  'sign-turned': { channel: 'supply_vacuum' },
  'read-as-absolute': { channel: 'supply_vacuum' },
  'reference-assumed': { channel: 'supply_vacuum', as: 'absolute' },
  'repeats-differ': { characteristic: 'vacuum-loss', by: 8e3 },
  'repeats-end-differently': { characteristic: 'boost-slope' },
  'no-modulating-line': { ratio: 1.72 },
  'gap-in-hold': { channel: 'supply_vacuum', seconds: 6 },
  'gap-in-pull': { channel: 'input_pressure', seconds: 6 },
  'pulled-too-quickly': { seconds: 0.6, needed: 2.5 },
  'reserve-from-too-little': { vacuum: 40e3, should: 58e3 },
  'source-still-on': {},
  'strokes-uneven': { channel: 'pedal_force', share: 0.3 },
  'pump-ran-between': { channel: 'accumulator_pressure' },
  'not-from-empty': { left: 5e6 },
  'shell-taken-as-air': { within: 5 },
  'steering-not-seen': {},
  'never-idled': {},
  'relief-creeps': { by: 3e5 },
  'relief-chatters': { by: 5e5 },
  'still-changing': { channel: 'supply_vacuum', by: 4e3 },
  'barometer-questioned': { by: 15_900 },
  'store-not-full': { pressure: 8e6, full: 15e6 },
  'stepped-in-rest': { channel: 'accumulator_pressure', by: 8e5 },
  'line-in-rise': { channel: 'rear_pressure', seconds: 0.46 },
  'dials-assumed': { channels: ['supply_vacuum'] },
  'gauges-assumed': { channels: ['supply_vacuum', 'input_pressure'] },
  'written-over': { between: 'line', channels: ['supply_vacuum', 'input_pressure'], times: 10 },
  'written-in-turn': { carried: 0.0123 },
  'lag-taken-off': { channel: 'output_pressure', lag: 0.12 },
  'lag-not-known': { channel: 'output_pressure', allowed: 0.2 },
  'does-not-follow': { channel: 'output_pressure' },
  'supply-not-off': { channel: 'supply_vacuum', left: 40e3 },
  'too-little-pressure': { channel: 'accumulator_pressure', pressure: 2e5, needed: 5e6 },
  'held-elsewhere': { at: 2e5, low: 1e6, high: 4e6 },
  'settling-left-out': { amount: 400 },
  'not-settled': { rate: 300 },
  'no-draw': {},
  'no-volume': {},
  'no-release': {},
  'residual-never-reached': { level: 35e3 },
  'run-out-disagrees': { controlZero: 1.6e6, runOut: 1.8e6 },
  'pair-not-corrected': { worst: 3e5, at: 4e6 },
  'pair-corrected': { gain: 1.012, offset: 4e3 },
  'pair-not-measured': {},
  'vacuum-pair-not-measured': {},
  'no-strokes': { channel: 'pedal_force' },
  'reserve-not-used-up': { strokes: 6 },
  'too-few-strokes': { strokes: 3, needed: 6 },
  'last-strokes-differ': { strokes: 6 },
  'bump-not-seen': {},
  'point-off-line': { point: 3, off: -3e5, channel: 'output_pressure' },
  'gauge-never-moved': { channel: 'front_pressure' },
  'taken-as-quiet': { channel: 'supply_vacuum' },
  'gas-heat-from-trace': { seconds: 7.2, sheet: 30 },
  'soaked-too-briefly': { seconds: 60, needed: 300 },
  'vacuum-gone': { vacuum: 12e3 },
  'called-early': { at: 93.4, of: 300 },
  'nothing-builds': { vacuum: 3e3 },
  'sensor-differs': { difference: 4e3 },
  'no-pump-signal': {},
  'pump-never-started': {},
  'pump-never-stopped': { vacuum: 55e3 },
  'rest-outlasts': { seconds: 641.7 },
  'uneven-loss': { off: 2.5e3 },
  'lead-off': { channel: 'supply_voltage', voltage: 0.02, current: 38 },
  'drop-as-read': { part: 'feed', drop: 0.16, current: 20, rated: 40 },
  'read-far-from-limit': { seconds: 300, stated: 15 },
  'not-between': { after: 40, seconds: 30 },
  'all-gone': { seconds: 15 },
  'engine-not-started': {},
  'foot-not-still': { share: 0.23 },
  'unassisted-too-small': { pressure: 2e5 },
  'source-kind-missing': {},
  'short-of-assist': { vacuum: 50e3, rated: 67e3, runOut: 5.1e6, ratedRunOut: 6.8e6, as: 'gauge' },
  'channel-missing': { channel: 'accumulator_pressure_2' },
  'sensor-not-named': {},
  'another-sensor': {},
  'not-awake': {},
  'power-not-seen': {},
  'stage-not-reached': { by: 0.011, reached: 0.025 },
  'no-second-stage': { reached: 0.055 },
  'follows-before': { wheel: 'fl', by: 0.012 },
  'rate-limited': { channel: 'wheel_pressure_fl', rate: 40e6 },
  'one-clock-assumed': {},
  'wheel-took': { wheel: 'rr', seconds: 0.14 },
  'pressed-slowly': { seconds: 0.4, needed: 0.2 },
  'never-reached': { channel: 'wheel_pressure_fl' },
  'source-not-up': { pressure: 0, needed: 500e3 },
  'source-not-seen-up': {},
  'foot-not-recorded': {},
  'more-than-the-foot': { pressure: 9e6, most: 4.5e6 },
  'load-not-seen': {},
  'bank-hardly-fell': { by: 0.2, needed: 0.7 },
  'charger-still-on': {},
  'no-bank-on-sheet': {},
  'no-bank-fitted': {},
  'bank-drains': { share: 0.07 },
  'bank-found': { capacitance: 57.3, resistance: 0.034 },
  'bank-below-least': { voltage: 8.1, least: 9 },
  'bank-not-full': { voltage: 12.4, full: 15 },
  'not-put-to-sleep': {},
  'zero-not-read-asleep': {},
  'nothing-charged': {},
  'battery-missing': { voltage: 0.1 },
  'current-too-small': { current: 3, needed: 8 },
  'feed-open': { voltage: 0.2 },
  'ground-in-feed': {},
  'resistance-of': { part: 'ground', ohm: 0.012 },
  'weak-supply': { voltage: 10.4, rated: 12 },
  'drop-negative': { part: 'feed', by: 0.3 },
  'current-negative': { channel: 'sleep_current', current: -0.35 },
  'tracks-swapped': {},
  'meter-not-seen-alive': { channel: 'sleep_current' },
  'key-still-on': {},
  'key-off-assumed': {},
  'sensor-not-supplied': { voltage: 0.1 },
  'sensor-supply-assumed': { voltage: 5 },
  'stroke-too-short': { reached: 0.012, needed: 0.02 },
  'track-without-line': {},
  'track-stays-off': { times: 1 },
  'sum-worst-at': { channel: 'rod_travel', at: 0.021 },
  'sampled-too-slowly': { rate: 50, needed: 100 },
  'logged-too-slowly': { channel: 'rod_force', every: 1, needed: 5 },
  'run-too-short': {},
  'not-bled-out': { left: 5e6 },
  'no-knee': {},
  'knee-too-coarse': {},
  'precharges-disagree': { charging: 8.1e6, bleeding: 7.4e6 },
  'pump-never-stopped-charging': { seconds: 59.98 },
  'cycles-not-settled': { rests: 1 },
  'cycles-speak-for': { fault: 'internal-leak', next: 'precharge-low', apart: 30 },
  'log-reads-as': { title: 'Release' },
  'log-proportional': { lever: 'input_pressure', output: 'output_pressure' },
  'log-out-of-range': { channel: 'output_pressure', reaches: 80e6, sound: 8e6 },
  'leak-read-at': { channel: 'accumulator_pressure', pressure: 14.2e6 },
  'store-not-used-up': { strokes: 8 },
  'lamp-never-lit': { down: 9e6 },
  'soak-too-short': { seconds: 61.3, needed: 300 },
  'nothing-lost': { seconds: 14_400 },
  'empty-before-half': { precharge: 8e6 },
  'charged-too-long': { of: 'motor', seconds: 20 },
  'not-dead': { left: 2e6 },
  'gauge-not-seen-alive': { channel: 'accumulator_pressure' },
  'reads-below-zero': { channel: 'accumulator_pressure', reading: -14.5e6 },
  'strokes-to-dead': { strokes: 24 },
  'sphere-of-other-purpose': { found: 'suspension', wanted: 'brake' },
  'fluid-mixed': { found: 'mineral', wanted: 'glycol' },
  'no-angle': {},
  'circuits-differ-at': { channel: 'pedal_angle', at: 14.2, difference: 60e3 },
  'no-step': {},
  'relief-not-reached': { peak: 9e6 },
  'self-applied': { pressure: 3e5 },
  'pressure-before-pull': { pressure: 9e4 },
};

const problems = Object.entries(facts).map(([code, rest]) => [code, { code, ...rest } as AnalysisProblem] as const);
const say = (problem: AnalysisProblem, units = displayUnits('kpa')) => analysisProblemText(problem, units);

describe('what a trace could not tell', () => {
  it.each(problems)(
    '%s is a whole sentence in every set of units, with no figure longer than a gauge shows',
    (_code, problem) => {
      for (const units of displayUnitSets) {
        const text = say(problem, units);
        expect(text).toMatch(/^[A-Z0-9].*\.$/);
        expect(text).not.toMatch(/undefined|NaN|null|\[object|Infinity/);
        expect(text).not.toMatch(/\d\.\d{5}/);
      }
    },
  );

  it.each(problems)('%s never shows a figure that there is not', (_code, problem) => {
    const without = Object.fromEntries(
      Object.entries(problem).map(([key, fact]) => [key, typeof fact === 'number' ? Number.NaN : fact]),
    ) as unknown as AnalysisProblem;
    for (const units of displayUnitSets) expect(say(without, units)).not.toMatch(/NaN|Infinity|undefined/);
  });

  it('a hold of no time is not said to be one of 0.0 s', () => {
    expect(say({ code: 'hold-too-short', seconds: 0, needed: 9 })).toBe(
      'Nothing is seen to be held: 9.0 s are needed.',
    );
  });

  it('no two problems are said in the same words', () => {
    const texts = problems.map(([, problem]) => say(problem));
    expect(new Set(texts).size).toBe(texts.length);
  });

  it('pressures are said in the units of the shop', () => {
    const problem = { code: 'not-dead', left: 2e6 } as const;
    expect(say(problem, displayUnits('kpa'))).toContain('2.00 MPa');
    expect(say(problem, displayUnits('bar'))).toContain('20.0 bar');
    expect(say(problem, displayUnits('psi'))).toContain('290 psi');
  });

  it('where two circuits differ is said in the unit of the lever', () => {
    const at = (channel: string, where: number) =>
      say({ code: 'circuits-differ-at', channel, at: where, difference: 60e3 });
    expect(at('pedal_angle', 14.2)).toContain('at 14.2 °');
    expect(at('pedal_force', 240)).toContain('at 240 N');
  });

  it('a run-out or knee with no forecast says only how far it was looked for', () => {
    expect(say({ code: 'run-out-not-reached', by: 0, peak: 1.5e6 })).toBe(
      'Run-out not reached up to 1.50 MPa: pull further.',
    );
    expect(say({ code: 'knee-not-reached', by: 0, peak: 600 })).toBe('Run-out not reached up to 600 N: push further.');
  });

  it('cycles that lie near two faults name both', () => {
    const speak = (apart: number) =>
      say({ code: 'cycles-speak-for', fault: 'internal-leak', next: 'precharge-low', apart });
    expect(speak(1)).toMatch(/internal leak.* or precharge low/);
    expect(speak(30)).not.toContain('precharge low');
  });

  it('a hold at another pressure says whether it was too low or too high', () => {
    expect(say({ code: 'held-elsewhere', at: 2e5, low: 1e6, high: 4e6 })).toContain('only');
    expect(say({ code: 'held-elsewhere', at: 5e6, low: 2e5, high: 8e5 })).toContain('close at more');
  });

  it('one of a thing is one', () => {
    expect(say({ code: 'strokes-to-dead', strokes: 1 })).toBe('Dead after 1 stroke.');
    expect(say({ code: 'cycles-not-settled', rests: 1 })).toMatch(/^1 whole rest,/);
    expect(say({ code: 'cycles-not-settled', rests: 0 })).toMatch(/^0 whole rests,/);
  });

  it('readings far apart are so in figures that a person reads', () => {
    const slow = (every: number, needed: number) =>
      say({ code: 'logged-too-slowly', channel: 'rod_force', every, needed });
    expect(slow(0.25, 5)).toMatch(/read every 0\.25 s only.*5 times a second or more\.$/);
    expect(slow(240, 1)).toMatch(/read every 4 min only.*once a second or more\.$/);
  });

  it('a motor and a dead end are stopped for their own reasons', () => {
    expect(say({ code: 'charged-too-long', of: 'motor', seconds: 20 })).toContain('Let it cool');
    expect(say({ code: 'charged-too-long', of: 'dead-head', seconds: 5 })).toContain('dead end');
  });
});

describe('how long', () => {
  it.each([
    [0.5, '0.5 s'],
    [2, '2 s'],
    [59.98, '60 s'],
    [119.4, '119 s'],
    [120, '2 min'],
    [641.7, '11 min'],
    [14_400, '240 min'],
  ])('%d s is %s', (seconds, text) => {
    expect(waitText(seconds)).toBe(text);
  });
});
