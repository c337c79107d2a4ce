import * as z from 'zod';
import type { Day } from '../day-plan/day';
import type { DayPlan } from '../day-plan/plan';
import { isoTime, waitText, whyLateText, whyNotPlacedText, type DayClock } from '../wording/day-plan-text';
import { readFailed, readOk, type Read } from './read-result';
import { fieldProblems, parseJson } from './unit-sheet';

export const dayFormat = 'hard-pedal/day';
export const dayPlanFormat = 'hard-pedal/day-plan';

const text = z.string().min(1).max(120);
const minutes = z.number().min(0).max(100_000);

const isoWithOffset = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,9})?)?(Z|[+-]\d{2}:?\d{2})$/;

/** A moment with its offset, as minutes since 1970. */
const moment = z
  .string()
  .refine((value) => isoWithOffset.test(value) && Number.isFinite(Date.parse(value)), {
    error: 'must be an ISO time with its offset, such as 2026-11-23T08:00:00+01:00',
  })
  .transform((value) => Date.parse(value) / 60_000);

const optional = <T extends z.ZodType>(schema: T) => schema.nullable().default(null as never);

const task = z.object({
  id: text,
  hands: minutes,
  alone: minutes.default(0),
  bench: z.boolean(),
  role: optional(text),
  began: optional(moment),
  person: optional(text),
});

const job = z.object({
  id: text,
  booked: moment,
  promised: optional(moment),
  setUp: optional(text),
  bench: optional(text),
  tasks: z.array(task).max(200),
});

const shape = z.object({
  format: z.literal(dayFormat),
  version: z.literal(1),
  now: moment,
  people: z
    .array(
      z.object({
        id: text,
        roles: z.array(text).max(50).default([]),
        hours: z.array(z.object({ from: moment, to: moment })).max(2000),
      }),
    )
    .max(200),
  benches: z.array(z.object({ id: text, setUps: z.array(text).max(200), mounted: optional(text) })).max(200),
  setUpMinutes: minutes,
  jobs: z.array(job).max(1000),
});

type Shape = z.output<typeof shape>;
type Say = (path: readonly (string | number)[], message: string) => void;

function namedOnce(of: readonly { readonly id: string }[], path: readonly (string | number)[], say: Say): void {
  const seen = new Set<string>();
  of.forEach(({ id }, at) => {
    if (seen.has(id)) say([...path, at, 'id'], `"${id}" stands here twice`);
    seen.add(id);
  });
}

function checkHours({ people }: Shape, say: Say): void {
  people.forEach(({ hours }, at) =>
    hours.forEach(({ from, to }, i) => {
      if (to <= from) say(['people', at, 'hours', i], 'must end after it begins');
    }),
  );
}

function checkTasks({ people, now }: Shape, { tasks, bench }: Shape['jobs'][number], at: number, say: Say): void {
  let open = false;
  tasks.forEach((each, i) => {
    const path = ['jobs', at, 'tasks', i];
    if (each.person !== null && !people.some(({ id }) => id === each.person))
      say([...path, 'person'], `there is nobody called "${each.person}"`);
    if (each.began === null) {
      open = true;
      return;
    }
    if (each.began > now) say([...path, 'began'], 'lies after now');
    if (open) say([...path, 'began'], 'has begun although a task before it has not');
    if (each.bench && bench === null) say(['jobs', at, 'bench'], `must say where ${each.id} is in progress`);
  });
}

function checkJobs(day: Shape, say: Say): void {
  const mounted = new Map<string, string>();
  day.jobs.forEach((each, at) => {
    namedOnce(each.tasks, ['jobs', at, 'tasks'], say);
    checkTasks(day, each, at, say);
    if (each.bench === null) return;
    if (!day.benches.some(({ id }) => id === each.bench))
      say(['jobs', at, 'bench'], `there is no bench "${each.bench}"`);
    const other = mounted.get(each.bench);
    if (other !== undefined && each.tasks.some((one) => one.bench))
      say(['jobs', at, 'bench'], `${other} is mounted on "${each.bench}" as well`);
    if (each.tasks.some((one) => one.bench)) mounted.set(each.bench, each.id);
  });
}

const checked = shape.superRefine((day, context) => {
  const say: Say = (path, message) => context.addIssue({ code: 'custom', path: [...path], message });
  namedOnce(day.people, ['people'], say);
  namedOnce(day.benches, ['benches'], say);
  namedOnce(day.jobs, ['jobs'], say);
  checkHours(day, say);
  checkJobs(day, say);
});

/** Reads a day from JSON text, with the offset of its `now`, minutes, which the plan is written in. */
export function readDay(json: string, file: string): Read<{ readonly day: Day; readonly offset: number }> {
  const read = parseJson(json, file);
  if (!read.ok) return read;
  const parsed = checked.safeParse(read.value);
  if (!parsed.success) return readFailed(...fieldProblems(file, parsed.error));
  const { now, people, benches, setUpMinutes, jobs } = parsed.data;
  const inOrder = people.map((each) => ({ ...each, hours: [...each.hours].sort((p, q) => p.from - q.from) }));
  const { now: written } = read.value as { now: string };
  return readOk({ day: { now, people: inOrder, benches, setUpMinutes, jobs }, offset: offsetOf(written) });
}

function offsetOf(iso: string): number {
  const found = /([+-])(\d{2}):?(\d{2})$/.exec(iso);
  return found ? (found[1] === '-' ? -1 : 1) * (Number(found[2]) * 60 + Number(found[3])) : 0;
}

const twoDecimals = (value: number) => Math.round(value * 100) / 100;

/** A plan as the open file writes it; times with the offset of the day's own `now`. */
export function writeDayPlan({ tasks, setUps, jobs, unplaced, late }: DayPlan, { now, offset }: DayClock): object {
  const time = (at: number) => isoTime(at, offset);
  const clock = { now, offset };
  return {
    format: dayPlanFormat,
    version: 1,
    tasks: tasks.map(({ from, handsUntil, until, ...rest }) => ({
      ...rest,
      from: time(from),
      handsUntil: time(handsUntil),
      until: time(until),
    })),
    setUps: setUps.map(({ from, until, ...rest }) => ({ ...rest, from: time(from), until: time(until) })),
    jobs: jobs.map((each) => ({
      id: each.id,
      finish: each.finish === null ? null : time(each.finish),
      lateMinutes: twoDecimals(each.late),
      why: [...each.waits.map((wait) => waitText(wait, clock)), ...whyLateText(each, clock)],
    })),
    lateMinutes: twoDecimals(late),
    unplaced: unplaced.map(({ job: of, task: what, why }) => ({ job: of, task: what, why: whyNotPlacedText(why) })),
  };
}
