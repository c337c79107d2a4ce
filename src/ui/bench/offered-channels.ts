import type { AnyKind } from '@/core/contract/kind';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { channels } from '@/core/quantities/channels';

/** Channels that a column of a log may be, what is likeliest first. */
export interface OfferedChannels {
  readonly title: string;
  readonly ids: readonly string[];
}

/** What a step needs or uses, what other steps of its kind of unit do, and the rest, each channel once. */
export function offeredChannels(kind: AnyKind, step: MeasuredStep<unknown>): readonly OfferedChannels[] {
  const read = ({ feeds: { log } }: MeasuredStep<unknown>) => [...log.needs, ...(log.anyOf ?? []).flat(), ...log.uses];
  const others = kind.steps.flatMap((each) => (each.kind === 'measured' ? read(each) : []));
  const groups = [
    { title: 'Of this step', ids: read(step) },
    { title: 'Of this unit', ids: others },
    { title: 'Others', ids: channels.map(({ id }) => id) },
  ];
  const taken = new Set<string>();
  return groups.map(({ title, ids }) => ({
    title,
    ids: ids.filter((id) => !taken.has(id) && taken.add(id)),
  }));
}
