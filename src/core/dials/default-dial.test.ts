import { instrumentsByChannel } from '../instruments/default-instruments';
import { asDials } from './default-dial';

const named = {
  channel: 'supply_vacuum',
  name: 'The good gauge',
  range: 100e3,
  resolution: 100,
  classFraction: 0.006,
  classOf: 'full-scale',
  calibratedOn: null,
  dueOn: null,
} as const;

describe('dials that nobody named', () => {
  it('are coarser than the stand-in’s transducers', () => {
    const instruments = instrumentsByChannel([]);
    const [transducer, dial] = [instruments, asDials(instruments)].map((each) => each.get('input_pressure')!);
    expect(dial.classFraction).toBeGreaterThan(transducer.classFraction);
    expect(dial.resolution).toBeGreaterThan(transducer.resolution);
  });

  it('leave a named instrument what it is', () => {
    expect(asDials(instrumentsByChannel([named])).get('supply_vacuum')).toEqual(named);
  });
});
