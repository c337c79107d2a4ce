import { months, wallTimeAt } from './shop-time';
import type { PlannedJob, Wait, WhyNot } from '../day-plan/plan';

/** The clock that times are told by: now, minutes since 1970, and its offset from UTC, minutes. */
export interface DayClock {
  readonly now: number;
  readonly offset: number;
}

const two = (value: number) => String(value).padStart(2, '0');

/** Minutes since 1970 by the clock of `offset`, minutes. */
const wallClock = (at: number, offset: number) => wallTimeAt(Math.round((at + offset) * 60_000), 'UTC');

/** A moment by the clock on the wall; with its day where that is not today. */
export function clockText(at: number, { now, offset }: DayClock): string {
  const [wall, today] = [wallClock(at, offset), wallClock(now, offset)];
  const clock = `${two(wall.hour)}:${two(wall.minute)}`;
  const isToday = wall.day === today.day && wall.month === today.month && wall.year === today.year;
  return isToday ? clock : `${wall.day} ${months[wall.month - 1]} ${clock}`;
}

/** Minutes since 1970 as an ISO time with this offset, minutes. */
export function isoTime(at: number, offset: number): string {
  const { year, month, day, hour, minute, second } = wallClock(at, offset);
  const size = Math.abs(offset);
  const zone = `${offset < 0 ? '-' : '+'}${two(Math.floor(size / 60))}:${two(size % 60)}`;
  return `${year}-${two(month)}-${two(day)}T${two(hour)}:${two(minute)}:${two(second)}${zone}`;
}

const whose = (role: string | null): string => (role === null ? 'somebody' : `a ${role}`);

/** What a job waits for before one of its tasks. */
export function waitText(wait: Wait, clock: DayClock): string {
  const until = clockText(wait.until, clock);
  switch (wait.kind) {
    case 'bench':
      return wait.heldBy === null
        ? `${wait.bench} is not free before ${until}`
        : `${wait.bench} holds ${wait.heldBy} until ${until}`;
    case 'set-up':
      return `${wait.bench} is set up for ${wait.setUp} until ${until}`;
    case 'hands':
      return `${wait.task} needs ${whose(wait.role)}: not free before ${until}`;
    case 'hours':
      return `${wait.task} needs ${whose(wait.role)}: nobody’s hours have room for it before ${until}`;
  }
}

/** So exactly is a job promised, minutes: nobody promises a unit for 14:37. */
const promiseStep = 5;

/** What would bring a job in time, or until when it may wait. */
export function whyLateText({ finish, late, startBefore }: PlannedJob, clock: DayClock): readonly string[] {
  if (late > 0 && finish !== null)
    return [
      `${Math.ceil(late)} min late: promise from ${clockText(Math.ceil(finish / promiseStep) * promiseStep, clock)}`,
    ];
  return startBefore === null ? [] : [`in time: start before ${clockText(Math.floor(startBefore), clock)}`];
}

/** Why a task has no place. */
export function whyNotPlacedText(why: WhyNot): string {
  switch (why.kind) {
    case 'no-bench':
      return why.setUp === null ? 'there is no bench' : `no bench can be set up for ${why.setUp}`;
    case 'benches-kept':
      return `every bench for it is kept by what cannot go on (${why.by.join(', ')})`;
    case 'no-role':
      return `a ${why.role} is needed, and nobody is one`;
    case 'not-theirs':
      return `a ${why.role} is needed, and ${why.person} is none`;
    case 'no-hours':
      return `no hours of ${why.role === null ? 'anybody' : `a ${why.role}`} have room for its ${why.minutes} min`;
    case 'after':
      return `comes after ${why.task}, which has no place`;
  }
}
