import type { Stretch } from './day';

/** One person's time: hours in order, and what is taken of them, in order. */
export interface Calendar {
  readonly hours: readonly Stretch[];
  readonly busy: Stretch[];
}

/** First moment from `ready` on at which `minutes` lie whole inside one stretch of hours and beside nothing else; infinite where none is. */
export function firstFree({ hours, busy }: Calendar, ready: number, minutes: number): number {
  let next = 0;
  for (const { from, to } of hours) {
    if (to - minutes < ready) continue;
    let at = Math.max(from, ready);
    while (next < busy.length && busy[next].to <= at) next++;
    for (let i = next; i < busy.length && busy[i].from < at + minutes; i++) at = Math.max(at, busy[i].to);
    if (at + minutes <= to) return at;
  }
  return Infinity;
}

/** Takes a stretch of a person's time. */
export function take({ busy }: Calendar, from: number, to: number): void {
  if (to <= from) return;
  let at = busy.length;
  while (at > 0 && busy[at - 1].from > from) at--;
  busy.splice(at, 0, { from, to });
}

/** Gives back what was taken last from `from` on. */
export function giveBack({ busy }: Calendar, from: number): void {
  const at = busy.findLastIndex((each) => each.from === from);
  if (at >= 0) busy.splice(at, 1);
}
