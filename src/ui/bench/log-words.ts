import type { MappingQuestion } from '@/core/formats/mapping-questions';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { channelTitle } from '@/core/quantities/channels';
import type { LogState } from './use-log-worker';

/** What a step asks of a log, in a sentence. */
export function asksFor({ needs, uses }: MeasuredStep<unknown>['feeds']['log']): string {
  const named = (channels: readonly string[]) => channels.map((channel) => channelTitle(channel).toLowerCase());
  const used = `uses ${named(uses).join(', ')} where there`;
  if (needs.length === 0) return `This step ${used}.`;
  return `This step needs ${named(needs).join(' and ')}${uses.length > 0 ? `, and ${used}` : ''}.`;
}

/** What is asked about a column of a log before it is kept. */
export const questionWords: Readonly<Record<MappingQuestion['why'], (header: string) => string>> = {
  'unit-unknown': (header) =>
    `“${header}” names a unit that is not known here. Choose it below; as it stands the usual one is taken.`,
  'scale-questioned': (header) => `“${header}” shows more than anything here has. Is its unit right?`,
  'reference-open': (header) => `“${header}” makes sense as it is called, and as an absolute pressure. Which is it?`,
  'remembered-misfits': (header) =>
    `“${header}” looks otherwise in this file than in the last one: its unit, sign or reference has changed.`,
};

/** How much of a log was read, and what of it does not count. */
export function sizeOf(state: LogState): string {
  if (state.kind !== 'mapped') return '';
  const { rows, headers, repeatedHeaders } = state.opened;
  const again = repeatedHeaders > 0 ? `, its header ${repeatedHeaders} times more (left out)` : '';
  const repeated =
    state.judged && state.judged.repeatedTimes > 0 ? `, ${state.judged.repeatedTimes} repeat a time` : '';
  const left = state.judged && state.judged.leftOut.length > 0 ? `, ${state.judged.leftOut.length} left out` : '';
  return `${rows.toLocaleString('en')} rows, ${headers.length} columns${again}${repeated}${left}`;
}
