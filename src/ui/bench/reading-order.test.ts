import { everyKind } from '@/core/families';
import { shownAs } from '@/core/quantities/shown-as';
import { barEnd } from './bar-end';
import { inReadingOrder } from './reading-order';

const liveSteps = everyKind.flatMap((kind) =>
  kind.steps.flatMap((step) => (step.kind === 'measured' && step.feeds.live ? [{ kind, step }] : [])),
);

describe('readings of the live bench', () => {
  it('every live step shows something that it needs, of whatever family', () => {
    expect(liveSteps.length).toBeGreaterThan(60);
    const without = liveSteps.filter(({ kind, step }) => {
      const { needs, uses, anyOf = [] } = step.feeds.log;
      const levers = kind.plans.flatMap((plan) => plan.lever?.channel ?? []);
      const shown = inReadingOrder(needs, uses)
        .filter((channel) => !levers.includes(channel))
        .slice(0, 4);
      const wanted = [...needs, ...anyOf.flat()].filter((channel) => !levers.includes(channel));
      return wanted.length > 0 && !shown.some((channel) => wanted.includes(channel));
    });
    expect(without.map(({ kind, step }) => `${kind.family} ${step.id}`)).toEqual([]);
  });

  it('of by-wire units the bank and the wheels are among them', () => {
    const { step } = liveSteps.find(({ kind, step: { id } }) => kind.family === 'brake-by-wire' && id === 'backup')!;
    expect(inReadingOrder(step.feeds.log.needs, step.feeds.log.uses).slice(0, 2)).toEqual([
      'backup_voltage',
      'backup_current',
    ]);
  });

  it('no bar of anything but a pressure is as long as a pressure', () => {
    for (const { step } of liveSteps)
      for (const channel of [...step.feeds.log.needs, ...step.feeds.log.uses])
        if (!['gauge', 'absolute', 'vacuum'].includes(shownAs(channel)))
          expect(barEnd(channel, {}, null)).toBeLessThan(1e4);
  });
});
