import type { NotByHandReason } from '../procedure/not-by-hand';

const texts: Readonly<Record<NotByHandReason, string>> = {
  'too-quick': 'It is over sooner than an eye or a watch follows.',
  'many-signals': 'It is told by what many signals of the vehicle do together, over a whole drive.',
  'nothing-shows-it': 'No dial and no lamp shows it.',
};

/** Why nobody reads a step off dials, and what reads it. */
export const notByHandText = (why: NotByHandReason, live: boolean): string =>
  `${texts[why]} ${live ? 'Run it on the bench, or bring a log of it.' : 'Bring a log of it.'}`;
