import { kindNamed } from '../families';
import { variedBench } from '../../../tests/support/varied-bench';
import { soundTruth } from './sound-truth';

describe('what a sound unit shows', () => {
  const kind = kindNamed('stored-pressure');
  const bench = (seed: number) => variedBench(kind, kind.plans[0].id, seed).context;
  const worked = (context: ReturnType<typeof bench>) =>
    kind.model.truth(context.unit, kind.model.sound(context.unit), context);

  it('is that of its own sheet, air and air’s warmth, whatever was asked for before', () => {
    const first = bench(1);
    const colder = { ...first, airTemperature: first.airTemperature - 15 };
    for (const context of [first, colder, bench(2), first, structuredClone(first), colder])
      expect(soundTruth(kind, context)).toEqual(worked(context));
    expect(soundTruth(kind, first)).not.toEqual(soundTruth(kind, colder));
  });

  it('is worked out once for a context that comes again from elsewhere', () => {
    const context = bench(3);
    expect(soundTruth(kind, structuredClone(context))).toBe(soundTruth(kind, context));
  });
});
