import { readFileSync } from 'node:fs';
import { planDay } from '../day-plan/plan-day';
import { readDay, writeDayPlan } from './day-file';

const file = {
  format: 'hard-pedal/day',
  version: 1,
  now: '2026-11-23T08:00:00+01:00',
  people: [
    { id: 'noor', roles: [], hours: [{ from: '2026-11-23T08:00:00+01:00', to: '2026-11-23T16:00:00+01:00' }] },
    { id: 'ilse', roles: ['lead'], hours: [{ from: '2026-11-23T12:00:00Z', to: '2026-11-23T15:00:00Z' }] },
  ],
  benches: [{ id: 'bench 1', setUps: ['vacuum'], mounted: null }],
  setUpMinutes: 15,
  jobs: [
    {
      id: 'UL-82',
      booked: '2026-11-20T10:00:00+01:00',
      promised: '2026-11-23T12:00:00+01:00',
      setUp: 'vacuum',
      bench: null,
      tasks: [
        { id: 'test', hands: 30, alone: 60, bench: true, role: null, began: null, person: null },
        { id: 'sign', hands: 10, alone: 0, bench: false, role: 'lead', began: null, person: null },
      ],
    },
    {
      id: 'TK-7',
      booked: '2026-11-21T10:00:00+01:00',
      promised: '2026-11-23T15:00:00+01:00',
      setUp: 'vacuum',
      bench: null,
      tasks: [{ id: 'test', hands: 20, alone: 0, bench: true, role: null, began: null, person: null }],
    },
  ],
};

type Given = Record<string, unknown>;
const read = (over: Given = {}) => readDay(JSON.stringify({ ...file, ...over }), 'day.json');

function planned(over: Given = {}) {
  const day = read(over);
  if (!day.ok) throw new Error(JSON.stringify(day.problems));
  return writeDayPlan(planDay(day.value.day), { now: day.value.day.now, offset: day.value.offset }) as {
    format: string;
    lateMinutes: number;
    tasks: { job: string; task: string; person: string; from: string; handsUntil: string; until: string }[];
    setUps: unknown[];
    jobs: { id: string; finish: string | null; lateMinutes: number; why: string[] }[];
    unplaced: { why: string }[];
  };
}

const wrong = (over: Given): string[] => {
  const day = read(over);
  return day.ok ? [] : day.problems.map((each) => ('field' in each ? `${each.field}: ${each.detail}` : each.code));
};

/** The file with something else at a path. */
function at(path: readonly (string | number)[], value: unknown): Given {
  const copy = structuredClone(file) as unknown as Given;
  const last = path.at(-1)!;
  const parent = path.slice(0, -1).reduce<Given>((of, key) => of[key] as Given, copy);
  parent[last] = value;
  return copy;
}

describe('the file of a day', () => {
  it('becomes a plan in its own offset that explains itself', () => {
    const plan = planned();
    expect(plan.format).toBe('hard-pedal/day-plan');
    expect(plan.setUps).toEqual([
      {
        bench: 'bench 1',
        setUp: 'vacuum',
        person: 'noor',
        from: '2026-11-23T08:00:00+01:00',
        until: '2026-11-23T08:15:00+01:00',
      },
    ]);
    expect(plan.tasks.map(({ job, task, person, from }) => `${job} ${task} ${person} ${from.slice(11, 16)}`)).toEqual([
      'TK-7 test noor 08:15',
      'UL-82 test noor 08:35',
      'UL-82 sign ilse 13:00',
    ]);
    expect(plan.jobs[0].why).toEqual([
      'bench 1 holds TK-7 until 08:35',
      'sign needs a lead: nobody’s hours have room for it before 13:00',
      '70 min late: promise from 13:10',
    ]);
    expect(plan.jobs[1].why).toEqual(['bench 1 is set up for vacuum until 08:15', 'in time: start before 14:40']);
    expect([plan.lateMinutes, plan.unplaced]).toEqual([70, []]);
  });

  it('tells a day that is not today, and why something has no place', () => {
    const people = [
      { id: 'noor', roles: [], hours: [{ from: '2026-11-24T08:00:00+01:00', to: '2026-11-24T16:00:00+01:00' }] },
    ];
    const plan = planned({ people });
    expect(plan.jobs[1].why.at(-1)).toMatch(/^1055 min late: promise from 24 Nov 08:35$/);
    expect(plan.unplaced).toEqual([{ job: 'UL-82', task: 'sign', why: 'a lead is needed, and nobody is one' }]);
  });

  it('says so where it is settled who does a task, and it is not for them', () => {
    const given = planned(at(['jobs', 0, 'tasks', 1, 'person'], 'noor'));
    expect(given.unplaced).toEqual([{ job: 'UL-82', task: 'sign', why: 'a lead is needed, and noor is none' }]);
  });

  it('the one that comes with the documents is planned whole', () => {
    const example = readDay(readFileSync('docs/day.json', 'utf8'), 'docs/day.json');
    if (!example.ok) throw new Error(JSON.stringify(example.problems));
    const plan = planDay(example.value.day);
    expect(plan.unplaced).toEqual([]);
    expect(plan.tasks.length).toBeGreaterThan(8);
  });

  it('refuses what is damaged, and names the place', () => {
    const task = ['jobs', 0, 'tasks', 0] as const;
    expect(wrong(at(['now'], 'today'))).toEqual([expect.stringMatching(/^now: must be an ISO time with its offset/)]);
    expect(wrong(at(['now'], '2026-11-23T08:00:00'))).toHaveLength(1);
    expect(wrong(at([...task, 'hands'], -1))).toEqual([expect.stringMatching(/^jobs\.0\.tasks\.0\.hands: /)]);
    expect(wrong(at([...task, 'person'], 'x'))).toEqual(['jobs.0.tasks.0.person: there is nobody called "x"']);
    expect(wrong(at(['jobs', 1, 'id'], 'UL-82'))).toEqual(['jobs.1.id: "UL-82" stands here twice']);
    expect(wrong(at(['jobs', 1, 'bench'], 'bench 9'))).toEqual(['jobs.1.bench: there is no bench "bench 9"']);
    expect(wrong(at([...task, 'began'], '2026-11-23T07:30:00+01:00'))).toEqual([
      'jobs.0.bench: must say where test is in progress',
    ]);
    expect(wrong(at(['jobs', 0, 'tasks', 1, 'began'], '2026-11-23T07:30:00+01:00'))).toEqual([
      'jobs.0.tasks.1.began: has begun although a task before it has not',
    ]);
    expect(wrong(at([...task, 'began'], '2026-11-23T09:30:00+01:00'))).toContain(
      'jobs.0.tasks.0.began: lies after now',
    );
    const hours = [{ from: '2026-11-23T09:00:00Z', to: '2026-11-23T08:00:00Z' }];
    expect(wrong(at(['people', 0, 'hours'], hours))).toEqual(['people.0.hours.0: must end after it begins']);
    expect(readDay('{', 'day.json')).toMatchObject({ ok: false, problems: [{ code: 'not-json' }] });
  });

  it('takes times without seconds and with Z, and what it does not know beside what it knows', () => {
    expect(wrong({ now: '2026-11-23T07:00Z', title: 'Monday' })).toEqual([]);
    expect(planned({ now: '2026-11-23T07:00Z' }).tasks[0].from).toBe('2026-11-23T07:15:00+00:00');
  });
});
