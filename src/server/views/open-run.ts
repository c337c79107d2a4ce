import type { Run } from '@/data/runs';

/** The run of a job that is recorded or waits to be kept, as screens show it. */
export type OpenRun =
  | {
      readonly kind: 'recording';
      readonly id: string;
      readonly step: string;
      /** The hold that is running, by the wall clock; null while hands are needed. */
      readonly hold: { readonly seconds: number; readonly endsAt: string } | null;
    }
  | { readonly kind: 'interrupted'; readonly id: string; readonly step: string }
  | { readonly kind: 'complete'; readonly id: string; readonly step: string };

/** What records, as far as a screen must know. */
interface Recording {
  isRecording(runId: string): boolean;
  now(
    runId: string,
  ): { readonly hold: { readonly seconds: number; readonly left: number } | null; readonly at: number } | undefined;
}

export function shownOpen({ id, step, state }: Pick<Run, 'id' | 'step' | 'state'>, recording: Recording): OpenRun {
  if (state === 'complete') return { kind: 'complete', id, step };
  if (!recording.isRecording(id)) return { kind: 'interrupted', id, step };
  const now = recording.now(id);
  const hold = now?.hold && {
    seconds: now.hold.seconds,
    endsAt: new Date(now.at + now.hold.left * 1000).toISOString(),
  };
  return { kind: 'recording', id, step, hold: hold ?? null };
}
