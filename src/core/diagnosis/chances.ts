import type { Prevalence } from '../contract/prevalence';
import type { HowOften } from '../contract/symptom';

/*
 * The one place where words become numbers. They are judgement, not measurement: coarse on purpose, and never certain, so
 * that no single look or word of a driver decides by itself.
 */

/** How often a fault brings what was noticed. */
export const chanceOf: Readonly<Record<HowOften, number>> = {
  always: 0.95,
  usually: 0.75,
  sometimes: 0.3,
  rarely: 0.06,
  never: 0.01,
};

/** How common faults are, against each other. */
export const weightOf: Readonly<Record<Prevalence, number>> = {
  common: 3,
  ordinary: 1,
  seldom: 0.3,
  'hardly-ever': 0.1,
};

/** Of all units that come to a bench: with nothing wrong, and with something that is in no list. */
export const chanceOfNoFault = 0.2;
export const chanceOfUnlisted = 0.05;

/** A driver who noticed something says it this often; what is not said is that much weaker evidence. */
export const chanceOfSaying = 0.6;

/** How often something unlisted, or nothing at all, makes a driver say any one thing. */
export const saidOfUnlisted = 0.2;
export const saidOfSound = 0.06;

/** A look finds what a fault does to the place where it does it. */
export const lookFinds = chanceOf.usually;
/** Where nothing is wrong there is something to note now and then, and hardly ever what would fail; somewhere about something unlisted more often. */
export const lookFindsAnyway = { note: 0.06, fail: 0.01 } as const;
export const lookFindsUnlisted = { note: 0.1, fail: 0.1 } as const;

/** A figure that comes out where nothing explains it: a slip of hand or instrument. */
export const slip = 0.003;

/** A step that finds nothing of a figure does so for reasons of its log, not of its unit, this often. */
export const lostToTheLog = 0.15;

/** A part that was just replaced, cleaned or set has its fault again this much more seldom. */
export const newPartsFail = 0.05;

/** A sound unit fails a guarded limit this seldom: U is about 95 %, one side of it. */
export const soundFails = 0.025;
