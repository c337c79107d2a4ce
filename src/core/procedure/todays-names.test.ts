import { makeTrace } from '../traces/trace';
import { formerNames, inTodaysNames } from './todays-names';

const feed = {
  needs: ['parking_pressure', 'parking_brake'],
  uses: [],
  leastRows: 20,
  formerly: { parking_pressure: 'output_pressure', parking_brake: 'lamp_amber' },
};
const one = Float64Array.of(1, 2);

describe('channels as they are called today', () => {
  it('take the place of their former names', () => {
    const old = makeTrace(one, { output_pressure: one, lamp_amber: one, front_pressure: one });
    expect(Object.keys(inTodaysNames(old, feed).columns)).toEqual([
      'parking_pressure',
      'parking_brake',
      'front_pressure',
    ]);
  });

  it('leave alone what is there under its own name, and other steps altogether', () => {
    const both = makeTrace(one, { output_pressure: one, parking_pressure: one });
    expect(inTodaysNames(both, feed)).toBe(both);
    const other = makeTrace(one, { output_pressure: one });
    expect(inTodaysNames(other, {})).toBe(other);
    expect(formerNames(feed, ['lamp_amber'])).toEqual(new Map([['lamp_amber', 'parking_brake']]));
  });
});
