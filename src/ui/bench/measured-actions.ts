/** Something that can be done now, with the key that does it. */
export interface Action {
  readonly title: string;
  readonly key: string;
  readonly run: () => void;
}

/** How a measured step stands at its bench. */
export interface MeasuredState {
  /** Another step of the unit that is still open. */
  readonly elsewhere: { readonly id: string; readonly title: string } | null;
  /** Where a shut step sends. */
  readonly shut: Action | null;
  /** Cautions that nobody has acknowledged. */
  readonly unread: boolean;
  /** No run of this step is there. */
  readonly idle: boolean;
  readonly state: string | null;
  readonly recording: boolean;
  /** What a running hold can be called now. */
  readonly callable: string | null;
  readonly usesLever: boolean;
  readonly byItself: boolean;
  /** A finished run is set aside while this one is made. */
  readonly aside: boolean;
  /** Title of a step that needs this one once more: what was done since has undone it. */
  readonly undone: string | null;
  readonly later: string | null;
}

interface Does {
  readonly go: (step: string) => void;
  readonly acknowledge: () => Promise<void>;
  readonly byItselfTo: (on: boolean) => void;
  readonly onward: () => void;
  readonly start: () => Promise<void>;
  readonly again: () => Promise<void>;
  readonly stop: () => Promise<void>;
  readonly resume: () => Promise<void>;
  readonly keep: () => Promise<void>;
  readonly discard: () => Promise<void>;
}

export interface Actions {
  /** What comes next, on Enter or Space. */
  readonly primary: Action | null;
  readonly others: readonly Action[];
}

/** What can be done with a measured step now. */
export function measuredActions(now: MeasuredState, does: Does): Actions {
  const enter = (title: string, run: () => void): Action => ({ title, key: 'Enter', run });
  const only = (primary: Action | null, ...others: readonly Action[]): Actions => ({ primary, others });
  const { elsewhere } = now;
  if (elsewhere) return only(enter(`Go to ${elsewhere.title.toLowerCase()}, still open`, () => does.go(elsewhere.id)));
  if (now.shut) return only(now.shut);
  if (now.unread && !now.recording) return only(enter('I have read these', () => void does.acknowledge()));
  const start = enter('Start recording', () => void does.start());
  if (now.idle) return only(start);

  const again: Action = { title: 'Run it again', key: 'R', run: () => void does.again() };
  const stop: Action = { title: 'Stop here', key: 'S', run: () => void does.stop() };
  const discard: Action = {
    title: now.aside ? 'Throw it away, back to the former' : 'Throw it away',
    key: 'X',
    run: () => void does.discard(),
  };
  switch (now.state) {
    case 'interrupted':
      return only(
        enter('Resume', () => void does.resume()),
        again,
        { ...stop, title: 'Judge what is there' },
        discard,
      );
    case 'complete':
      return only(
        enter('Keep this run', () => void does.keep()),
        again,
        discard,
      );
    case 'discarded':
      return only(start);
    case 'kept':
      if (now.undone !== null) return only(enter(`Once more for ${now.undone.toLowerCase()}`, () => void does.again()));
      return only(
        enter(now.later === null ? 'Back to the job' : `Next: ${now.later.toLowerCase()}`, does.onward),
        again,
      );
    case 'recording': {
      if (now.recording && now.callable !== null)
        return only(
          enter(`Call it: ${now.callable}`, () => void does.stop()),
          stop,
        );
      if (!now.usesLever || !now.recording) return only(null, stop);
      return now.byItself
        ? only(null, { title: 'Take the lever', key: 'Space', run: () => does.byItselfTo(false) }, stop)
        : only({ title: 'Let the rig pull', key: 'Space', run: () => does.byItselfTo(true) }, stop);
    }
    default:
      return only(null);
  }
}
