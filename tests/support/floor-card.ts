import type { FloorCard, FloorView } from '@/server/views/floor-view';

/** A card of the floor as the server would make it. */
export function floorCard(over: Partial<FloorCard> = {}, job: Partial<FloorCard['job']> = {}): FloorCard {
  return {
    job: {
      id: 'j1',
      serial: 'TK-2207-118',
      vehicle: 'Touring bus “Sorrel”',
      promisedAt: null,
      place: 'on-bench',
      sheet: { name: 'Tarnock R7' },
      ...job,
    },
    verdict: 'incomplete',
    steps: { done: 0, of: 9 },
    failed: null,
    undecided: null,
    conclusion: null,
    likeliest: null,
    blocked: true,
    face: { width: 96, height: 68, band: 'M7 61l82-54', apply: null, wayBack: null, earlier: null },
    openRun: null,
    overdue: [],
    ...over,
  };
}

/** The floor as the server would show it. */
export function floorView(over: Partial<FloorView> = {}): FloorView {
  const nothing = { beingJudged: [], broken: [], left: [], judging: null, unreadable: [], clockRanBack: [] };
  return { jobs: [floorCard()], zoneSet: true, ...nothing, ...over };
}
