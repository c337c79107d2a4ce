import fc from 'fast-check';
import { everyKind } from '../families';
import { goneNow, goneOnce, lockOf, type RecordedStep } from './interlock';

const steps = [
  { id: 'make-dead', proves: ['pressure'] },
  { id: 'look', interlock: goneNow('pressure') },
  { id: 'charge', brings: ['pressure'], interlock: goneOnce('pressure') },
  { id: 'relief', interlock: { kind: 'steps-clear', steps: ['look'] } },
] as const;
const plan = steps.map((step) => step.id);
const proof: RecordedStep = { step: 'make-dead', verdict: 'pass' };
const charged: RecordedStep = { step: 'charge', verdict: 'fail' };
const lock = (id: string, ...recorded: RecordedStep[]) => lockOf(steps, plan, id, recorded);

describe('interlocks', () => {
  it('nothing opens before the system has been proved dead', () => {
    expect(lock('charge')).toEqual({ code: 'not-proved', hazard: 'pressure', step: 'make-dead' });
    expect(lock('look')).toEqual({ code: 'not-proved', hazard: 'pressure', step: 'make-dead' });
    expect(lock('make-dead')).toBeNull();
  });

  it.each(['fail', 'undecided', 'not-run', 'recorded'] as const)(
    'a proof that came to %s proves nothing',
    (verdict) => {
      expect(lock('charge', { step: 'make-dead', verdict })?.code).toBe('not-proved');
    },
  );

  it('a charge ends the proof for what must be dead now, whatever the charge came to', () => {
    expect(lock('look', proof)).toBeNull();
    expect(lock('look', proof, charged)).toEqual({ code: 'back-since', hazard: 'pressure', step: 'make-dead' });
    expect(lock('charge', proof, charged)).toBeNull();
    expect(lock('look', proof, charged, proof)).toBeNull();
  });

  it('waits for steps that must be clear, judged by their last run', () => {
    expect(lock('relief')).toEqual({ code: 'not-clear', step: 'look' });
    expect(lock('relief', { step: 'look', verdict: 'fail' })?.code).toBe('not-clear');
    expect(lock('relief', { step: 'look', verdict: 'fail' }, { step: 'look', verdict: 'recorded' })).toBeNull();
  });

  it('no order of runs opens a step that must be dead now after the last charge', () => {
    const runs = fc.constantFrom<RecordedStep>(proof, charged, { step: 'make-dead', verdict: 'fail' });
    fc.assert(
      fc.property(fc.array(runs, { maxLength: 12 }), (recorded) => {
        const lastCharge = recorded.lastIndexOf(charged);
        const proved = recorded.lastIndexOf(proof) > lastCharge;
        expect(lock('look', ...recorded) === null).toBe(proved);
      }),
    );
  });
});

describe('plans of what can hurt', () => {
  const dead = everyKind.filter((kind) => kind.steps.some((step) => step.proves));

  it.each(dead.map((kind) => [kind.family, kind] as const))(
    '%s begins and ends dead, and opens nothing in between',
    (_id, kind) => {
      for (const { steps: planned } of kind.plans) {
        const [first, ...rest] = planned;
        expect(kind.steps.find((step) => step.id === first)?.proves).toBeDefined();
        expect(kind.steps.find((step) => step.id === planned.at(-1))?.proves).toBeDefined();
        for (const id of rest.filter((each) => each !== 'walk-round'))
          expect([id, lockOf(kind.steps, planned, id, [])?.code]).toEqual([id, 'not-proved']);
      }
    },
  );
});
