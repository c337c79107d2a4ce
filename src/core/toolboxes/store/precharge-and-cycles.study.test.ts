import type { CycleCase } from '../../../../scripts/studies/cycles';
import type { PrechargeCase } from '../../../../scripts/studies/precharges';
import { study } from '../../../../tests/support/study';
import { sized } from '../../../../tests/support/study-size';

const charges = sized(200, 300);
const bleeds = sized(60, 80);
/** A fifth of them sound, so that at full size 400 have a fault. */
const units = sized(200, 500);
const percent = (share: number) => `${(100 * share).toFixed(1)} %`;

let prechargeCases: PrechargeCase[] = [];
let cycleCases: CycleCase[] = [];

beforeAll(async () => {
  const [ofCharge, ofBleed, firstHalf, secondHalf] = await Promise.all([
    study<PrechargeCase[]>('precharges', 'charge-from-empty', charges),
    study<PrechargeCase[]>('precharges', 'bleed-down', bleeds),
    study<CycleCase[]>('cycles', 0, units / 2),
    study<CycleCase[]>('cycles', units / 2, units / 2),
  ]);
  prechargeCases = [...ofCharge, ...ofBleed];
  cycleCases = [...firstHalf, ...secondHalf];
}, 900_000);

describe('precharge from a trace, over simulated charges of every flow, exponent and temperature', () => {
  const of = (step: PrechargeCase['step']) => prechargeCases.filter((each) => each.step === step);
  const off = ({ value, truth }: PrechargeCase) => Math.abs((value ?? Number.NaN) / truth - 1);
  const covered = (cases: readonly PrechargeCase[]) =>
    cases.filter(({ value, truth, expanded }) => Math.abs((value ?? Number.NaN) - truth) <= (expanded ?? 0)).length /
    cases.length;

  it('prints what was found', () => {
    for (const step of ['charge-from-empty', 'bleed-down'] as const) {
      const rms = Math.sqrt(of(step).reduce((sum, each) => sum + off(each) ** 2, 0) / of(step).length);
      const worst = Math.max(...of(step).map(off));
      process.stdout.write(
        `\n${step.padEnd(18)} n ${of(step).length}   rms ${percent(rms)}   worst ${percent(worst)}   U covers ${percent(covered(of(step)))}`,
      );
    }
    process.stdout.write('\n');
    expect(of('charge-from-empty')).toHaveLength(charges);
  });

  it('every charge gives the precharge within 2 %', () => {
    for (const each of of('charge-from-empty')) expect(off(each)).toBeLessThan(0.02);
  });

  it('the stated U of a charge covers the truth in 93–97 % of cases', () => {
    expect(covered(of('charge-from-empty'))).toBeGreaterThanOrEqual(0.93);
    expect(covered(of('charge-from-empty'))).toBeLessThanOrEqual(0.97);
  });

  it('a bleed, whose gas is cold by an unknown amount, says so in its U', () => {
    expect(covered(of('bleed-down'))).toBeGreaterThanOrEqual(0.9);
    expect(of('bleed-down').every((each) => off(each) < 0.08)).toBe(true);
  });
});

describe('what the cycles alone tell, over simulated units with severities from a fifth on', () => {
  const faulty = () => cycleCases.filter((each) => each.truth !== 'sound');

  it('prints what was read as what', () => {
    const kinds = [...new Set(cycleCases.map((each) => each.truth))];
    const rows = kinds.map((kind) => {
      const of = cycleCases.filter((each) => each.truth === kind);
      const counts = new Map<string, number>();
      for (const { read } of of) counts.set(read, (counts.get(read) ?? 0) + 1);
      return `${kind.padEnd(16)} ${[...counts].map(([read, count]) => `${read} ${count}`).join(', ')}`;
    });
    process.stdout.write(`\n${rows.join('\n')}\n`);
    expect(faulty()).toHaveLength((units * 4) / 5);
  });

  it('low precharge, internal leak, weak pump and shifted switch are told apart in 95 % or more', () => {
    const right = faulty().filter((each) => each.read === each.truth).length;
    expect(right / faulty().length).toBeGreaterThanOrEqual(0.95);
  });

  it('a sound unit is rarely accused', () => {
    const sound = cycleCases.filter((each) => each.truth === 'sound');
    expect(sound.filter((each) => each.read === 'sound').length / sound.length).toBeGreaterThanOrEqual(0.95);
  });
});
