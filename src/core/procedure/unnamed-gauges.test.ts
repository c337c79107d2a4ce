import { standInUnit } from '../../../tests/support/stand-in-unit';
import { instrumentsByChannel } from '../instruments/default-instruments';
import { makeTrace } from '../traces/trace';
import { unnamedGauges } from './unnamed-gauges';

const { kind, context } = standInUnit('foundation', 'vehicle');
const step = kind.steps.find(({ id }) => id === 'proportioning');
if (step?.kind !== 'measured') throw new Error('the step is not measured');
const log = makeTrace(Float64Array.of(0, 1, 2), {
  front_pressure: Float64Array.of(0, 1e6, 2e6),
  rear_pressure: Float64Array.of(0, 1e6, 2e6),
  // Nothing that the step reads.
  wheel_pressure_fl: Float64Array.of(0, 1e6, 2e6),
});
const named = (channel: string) => ({
  channel,
  name: 'Gauge, 16 MPa',
  range: 16e6,
  resolution: 1e4,
  classFraction: 0.01,
  classOf: 'full-scale' as const,
  calibratedOn: null,
  dueOn: null,
});

describe('gauges of a log that nobody named', () => {
  it('are said, those that the step reads', () => {
    expect(unnamedGauges(step, log, context)).toEqual([
      { code: 'gauges-assumed', channels: ['front_pressure', 'rear_pressure'] },
    ]);
  });

  it('are those for which the workshop has none, and of which the step says nothing itself', () => {
    const instruments = instrumentsByChannel([named('front_pressure')]);
    const mounted = { ...context, instruments };
    expect(unnamedGauges(step, log, mounted)).toEqual([{ code: 'gauges-assumed', channels: ['rear_pressure'] }]);
    const own = { ...step, feeds: { ...step.feeds, log: { ...step.feeds.log, ownSensors: true as const } } };
    expect(unnamedGauges(own, log, mounted)).toEqual([]);
  });
});
