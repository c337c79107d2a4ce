import { contextAt } from '../../formats/site-file';
import { checkKind } from '../../formats/unit-sheet';
import { kindNamed } from '../../families';
import { expandedUncertainty } from '../../instruments/uncertainty';
import { dice, goodGauge, writeLog, type Signal } from '../../../../tests/support/second-writer/logger';
import { analyseRelease } from './release-analysis';

const kind = kindNamed('vacuum-inline');
const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
if (!checked.ok) throw new Error('the example sheet is not valid');
const context = contextAt(checked.value, { altitudeM: 1420 }, '2026-11-23');
const signal = (at: (t: number) => number, white: number): Signal => ({ at, gauging: { ...goodGauge, white } });

/** A lever let back over `back` seconds from 8 s on; the output is gone `after` seconds from when it stands at a tenth. */
function released(back: number, after: number) {
  const lever = (t: number) => 1_000 * Math.min(1, Math.max(0, t - 2), Math.max(0, (8 + back - t) / back));
  const tenth = 8 + 0.9 * back;
  const output = (t: number) =>
    t < tenth ? 6e6 * Math.min(1, Math.max(0, t - 2)) : 6e6 * Math.max(0, 1 - (t - tenth) / after);
  const log = writeLog(
    { rod_force: signal(lever, 1), output_pressure: signal(output, 1e3) },
    { seconds: 20, rate: 100 },
    dice(11),
  );
  const { characteristics } = analyseRelease(log, context, { lever: 'rod_force', residualLimit: 20e3 });
  const [time] = characteristics;
  if (time.kind !== 'measured') throw new Error(time.problem.code);
  return time.estimate;
}

describe('release', () => {
  it('is timed from where the lever stands at a tenth of what it was held at, however slowly it is let back', () => {
    for (const back of [0.3, 4, 8]) {
      const found = released(back, 1);
      expect(Math.abs(found.value - 1)).toBeLessThan(expandedUncertainty(found));
    }
  });
});
