import { random } from '../instruments/uncertainty';
import { makeTrace, type Trace } from '../traces/trace';
import { measured } from './analysis-result';
import { evidence, noEvidence, type Evidence } from './evidence';
import { answer, joinAnswers, saying, type Answered, type Question } from './question';
import type { StepAnalysis } from './step-analysis';

interface Opened {
  readonly level: number;
}

const trace = (level: number): Trace =>
  makeTrace(Float64Array.from([0, 1]), { supply_vacuum: Float64Array.from([0, level]) });

const asked: string[] = [];

/** Whether a source was opened, and how far. */
const source = (id: 'idle-vacuum' | 'held-vacuum', circuit: string): Question<null, Opened, Opened> => ({
  characteristics: [id],
  happened: (read) => {
    asked.push('happened');
    return read.columns.supply_vacuum
      ? { level: read.columns.supply_vacuum[1] }
      : noEvidence({ code: 'supply-missing' });
  },
  shows: (found) => {
    asked.push('shows');
    return found.level > 10
      ? evidence(found, [{ code: 'begins-in-hold' }], [{ code: 'side-not-seen-open' }])
      : noEvidence({ code: 'source-never-opened', vacuum: found.level }, { vacuum: found.level });
  },
  comesTo: ({ level }) => {
    asked.push('comesTo');
    return {
      characteristics: [measured(id, level, [random('noise', 1)])],
      events: [],
      notes: [{ code: 'no-rest-before' }],
      corrections: { precharge: { [circuit]: { value: level, standard: 1 } } },
    };
  },
});

beforeEach(() => asked.splice(0));

describe('a question put to a trace', () => {
  it('is asked in its order, and says what its evidence has to say before what it comes to', () => {
    const found = answer(source('idle-vacuum', ''), trace(50), null);
    expect(asked).toEqual(['happened', 'shows', 'comesTo']);
    expect(found.characteristics).toMatchObject([{ kind: 'measured', estimate: { value: 50 } }]);
    expect(found.notes.map((note) => note.code)).toEqual(['begins-in-hold', 'no-rest-before']);
    expect(found.doubts).toEqual([{ code: 'side-not-seen-open' }]);
  });

  it('forms no figure of what is no evidence, and keeps what was seen', () => {
    const found = answer(source('idle-vacuum', ''), trace(3), null);
    expect(asked).not.toContain('comesTo');
    expect(found.characteristics).toEqual([
      { kind: 'absent', id: 'idle-vacuum', problem: { code: 'source-never-opened', vacuum: 3 } },
    ]);
    expect(found.vacuum).toBe(3);
    expect(found.corrections).toBeUndefined();
  });

  it('asks nothing further of a trace that cannot be read', () => {
    const found = answer(source('idle-vacuum', ''), makeTrace(Float64Array.from([0]), {}), null);
    expect(asked).toEqual(['happened']);
    expect(found.characteristics).toMatchObject([{ kind: 'absent', problem: { code: 'supply-missing' } }]);
  });

  it('cannot come to anything without evidence, nor be answered but by asking', () => {
    const question = source('idle-vacuum', '');
    const bare = { level: 50 };
    // @ts-expect-error what nobody judged is no evidence
    const unasked: Evidence<Opened> = bare;
    const analysis: StepAnalysis = question.comesTo(unasked, null);
    // @ts-expect-error an analysis that went round its question is no answer
    const around: Answered = analysis;
    expect(around).toBe(analysis);
  });
});

describe('several questions of one step', () => {
  it('keep their order, every circuit’s correction, and a doubt that they share once', () => {
    const parts = [
      answer(source('idle-vacuum', ''), trace(50), null),
      answer(source('held-vacuum', '-2'), trace(40), null),
    ];
    const joined = joinAnswers(parts);
    expect(joined.characteristics.map((each) => each.id)).toEqual(['idle-vacuum', 'held-vacuum']);
    expect(joined.corrections?.precharge).toMatchObject({ '': { value: 50 }, '-2': { value: 40 } });
    expect(joined.doubts).toEqual([{ code: 'side-not-seen-open' }]);
  });

  it('one without evidence leaves the other its figure', () => {
    const joined = joinAnswers([
      answer(source('idle-vacuum', ''), trace(1), null),
      answer(source('held-vacuum', ''), trace(40), null),
    ]);
    expect(joined.characteristics.map((each) => each.kind)).toEqual(['absent', 'measured']);
  });

  it('what else is to be said comes after what they say', () => {
    const said = saying(answer(source('idle-vacuum', ''), trace(50), null), [{ code: 'no-release' }]);
    expect(said.notes.at(-1)).toEqual({ code: 'no-release' });
    expect(said.doubts).toHaveLength(1);
  });
});
