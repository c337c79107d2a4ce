import { dice, goodGauge, writeLog, type Signal } from '../../../tests/support/second-writer/logger';
import { families, kindNamed, findStep } from '../families';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import type { AnyKind } from '../contract/kind';
import type { PlanId } from '../procedure/step-context';
import { simulateStep } from '../rig/run-step';
import type { Trace } from '../traces/trace';
import { suspectLog } from './suspect-log';

function contextOf(kind: AnyKind, plan: PlanId) {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  return contextAt(checked.value, site, '2026-11-23', plan);
}

function measured(kind: AnyKind, id: string) {
  const step = findStep(kind, id);
  if (step?.kind !== 'measured') throw new Error(`${id} is not measured`);
  return step;
}

const remote = kindNamed('vacuum-remote');
const bench = contextOf(remote, 'bench');
const run = (id: string, seed = 3) =>
  simulateStep(remote, measured(remote, id), bench, { faults: [], benchSeed: seed, runSeed: seed });
const suspicions = (id: string, log: Trace) => suspectLog(remote, measured(remote, id), log, bench);
const scaled = (log: Trace, channel: string, factor: number): Trace => ({
  ...log,
  columns: { ...log.columns, [channel]: log.columns[channel].map((value) => value * factor) },
});

describe('a log that is hardly this step’s or this unit’s', () => {
  it('that of another step is named', () => {
    expect(suspicions('vacuum-hold-applied', run('vacuum-hold-rest'))).toContainEqual({
      code: 'log-reads-as',
      title: 'Vacuum hold, at rest',
    });
  });

  it('in another scale, or of a much larger unit, is asked about by its channel', () => {
    const curve = run('boost-curve');
    for (const factor of [10, 145, 0.1])
      expect(suspicions('boost-curve', scaled(curve, 'output_pressure', factor))).toContainEqual(
        expect.objectContaining({ code: 'log-out-of-range', channel: 'output_pressure' }),
      );
    expect(suspicions('boost-curve', scaled(curve, 'output_pressure', 1.3))).toEqual([]);
  });

  it('whose output only follows its input is no curve of a unit that helps', () => {
    const signal = (at: (t: number) => number, white: number): Signal => ({ at, gauging: { ...goodGauge, white } });
    const lever = (t: number) => 2.4e6 * Math.max(0, Math.min(1, (t - 2) / 20, (46 - t) / 20));
    const log = writeLog(
      {
        input_pressure: signal(lever, 4e3),
        output_pressure: signal((t) => 0.97 * lever(t), 4e3),
        supply_vacuum: signal(() => 0, 50),
      },
      { seconds: 50, rate: 20 },
      dice(9),
    );
    expect(suspicions('boost-curve', log)).toContainEqual({
      code: 'log-proportional',
      lever: 'input_pressure',
      output: 'output_pressure',
    });
  });

  it('a figure that is not there at all is left to the step itself', () => {
    const shut = scaled(run('boost-curve'), 'supply_vacuum', 0);
    expect(suspicions('boost-curve', shut).map((each) => each.code)).not.toContain('log-out-of-range');
  });
});

const everyPlan = families
  .flatMap((kind) => kind.kinds)
  .flatMap((kind, at) => kind.plans.map((plan) => [`${at + 1} ${kind.family}, ${plan.id}`, kind, plan] as const));

describe.each(everyPlan)('%s', (_name, kind, plan) => {
  it('sound logs of every step are suspected of nothing', () => {
    const context = contextOf(kind, plan.id);
    for (const id of plan.steps) {
      const step = findStep(kind, id);
      if (step?.kind !== 'measured') continue;
      const log = simulateStep(kind, step, context, {
        faults: [],
        benchSeed: 21,
        runSeed: 22,
        sampleRate: Math.min(50, step.feeds.live?.rate ?? 50),
      });
      expect({ id, suspected: suspectLog(kind, step, log, context) }).toEqual({ id, suspected: [] });
    }
  });
});
