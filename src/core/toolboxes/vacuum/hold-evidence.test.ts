import { contextAt } from '../../formats/site-file';
import { checkKind } from '../../formats/unit-sheet';
import { kindNamed } from '../../families';
import { dice, goodGauge, writeLog, type Signal } from '../../../../tests/support/second-writer/logger';
import { findHold, vacuumHoldEvidence, type HoldDemand } from './hold-evidence';

const kind = kindNamed('vacuum-inline');
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 1420 }, '2026-11-23');
const demand: HoldDemand = {
  seconds: 15,
  supplyVacuum: 60e3,
  leverChannel: 'rod_force',
  appliedLevel: null,
  appliesAt: 3_000,
};
const signal = (at: (t: number) => number, white: number): Signal => ({ at, gauging: { ...goodGauge, white } });

/** What a log of a vacuum and a lever is worth for a hold: the missing thing's code, else `evidence`. */
function worth(
  vacuum: (t: number) => number,
  lever: ((t: number) => number) | null,
  more: Partial<HoldDemand> = {},
): string {
  const signals = { supply_vacuum: signal(vacuum, 30), ...(lever ? { rod_force: signal(lever, 2) } : {}) };
  const asked = { ...demand, ...more };
  const found = findHold(writeLog(signals, { seconds: 24, rate: 20 }, dice(5)), context, asked);
  const judged = 'events' in found ? vacuumHoldEvidence(found, asked) : found;
  return judged.kind === 'none' ? judged.problem.code : 'evidence';
}

const falling = (t: number) => 58e3 - 40 * Math.max(0, t - 4);
const atHome = () => 0;

describe('what a log must show of a vacuum hold', () => {
  it('is evidence where the unit was at rest under vacuum and shut off', () => {
    expect(worth(falling, atHome)).toBe('evidence');
  });

  it('is none where there was no vacuum to hold', () => {
    expect(worth(() => 400, atHome)).toBe('source-never-opened');
  });

  it('is none of a hold at rest where the lever was held, or moved too soon', () => {
    expect(worth(falling, () => 3_000)).toBe('not-at-rest');
    expect(worth(falling, (t) => (t < 0.5 ? 0 : 3_000))).toBe('not-at-rest');
    expect(worth(falling, (t) => (t < 7 ? 0 : 2_000))).toBe('lever-moved');
  });

  it('is none of an applied hold where the unit was not applied, or not as far as that', () => {
    const applied = { appliedLevel: 3_000 };
    expect(worth(falling, (t) => (t < 3 ? 1_000 * t : 3_000), applied)).toBe('evidence');
    expect(worth(falling, (t) => (t < 3 ? 500 * t : 1_500), applied)).toBe('not-applied');
    expect(worth(falling, atHome, applied)).toBe('not-applied');
  });

  it('applied is not shown by a vacuum that falls at its end: letting back does that, and so does applying it only then', () => {
    const falls = (t: number) => (t < 21 ? falling(t) : 0.6 * falling(t));
    expect(worth(falls, null, { appliedLevel: 3_000 })).toBe('not-seen-applied');
  });
});
