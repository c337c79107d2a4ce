import type { DecisionTally, EarlyCallTally } from '../../../../scripts/studies/early-calls';
import { sized } from '../../../../tests/support/study-size';
import { study } from '../../../../tests/support/study';

const kinds = 3;
const holds = sized(1200, 2000);

interface Tallies {
  readonly calls: EarlyCallTally;
  readonly decisions: DecisionTally;
}

describe('holds watched and judged, over a thousand of each kind', () => {
  let tallies: Tallies[] = [];
  beforeAll(async () => {
    tallies = await Promise.all(Array.from({ length: kinds }, (_, kind) => study<Tallies>('early-calls', kind, holds)));
  }, 600_000);

  it('prints what was found', () => {
    const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
    const rows = tallies.flatMap(({ calls, decisions }) => [
      `${calls.kind.padEnd(20)} called ${calls.called} of ${calls.holds}   wrong ${calls.wrong}   full hold undecided ${calls.unsupported}   median time saved ${percent(calls.medianSaved)}`,
      `${''.padEnd(20)} near the limit ${decisions.units}: outside ${decisions.outside}   false passes ${decisions.falsePasses}   false fails ${decisions.falseFails}   undecided ${decisions.undecided}`,
    ]);
    process.stdout.write(`\n${rows.join('\n')}\n`);
    expect(tallies).toHaveLength(kinds);
  });

  it('wrong early calls stay under 1 in 200', () => {
    for (const { calls } of tallies) expect(calls.wrong / calls.called).toBeLessThanOrEqual(0.005);
  });

  it('a unit that is not near the limit saves at least 60 % of the time', () => {
    for (const { calls } of tallies) expect(calls.medianSaved).toBeGreaterThanOrEqual(0.6);
  });

  it('false passes stay under 2.5 % of the units outside the limit', () => {
    for (const { decisions } of tallies) {
      expect(decisions.outside).toBeGreaterThan(holds / 3);
      expect(decisions.falsePasses / decisions.outside).toBeLessThanOrEqual(0.025);
    }
  });

  it('every undecided check says what would decide it', () => {
    for (const { decisions } of tallies) {
      expect(decisions.undecided).toBeGreaterThan(0);
      expect(decisions.silent).toBe(0);
    }
  });
});
