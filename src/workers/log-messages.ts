import type { Corrections } from '@/core/procedure/step-analysis';
import type { MappedColumn } from '@/core/formats/column-mapping';
import type { GuessedColumn } from '@/core/formats/guess-mapping';
import type { QuestionedChannel } from '@/core/formats/questioned-channels';
import type { LogNotice } from '@/core/vocabulary/log-notice';
import type { ReadProblem } from '@/core/vocabulary/read-problem';
import type { TimelinePart, TimelineWindow } from '@/core/pictures/timeline-window';
import type { Site } from '@/core/formats/site-file';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import type { DecisionPolicy } from '@/core/vocabulary/verdict';
import type { Job } from '@/data/jobs';

/** What the log worker is asked. */
export type LogRequest =
  | {
      readonly kind: 'open';
      readonly file: File;
      readonly job: Pick<Job, 'sheet' | 'plan'>;
      readonly step: string;
      readonly site: Site;
      readonly date: string;
      readonly corrections: Corrections;
      readonly policy: DecisionPolicy;
    }
  /** `said`: what somebody says the log is about, where its step asks for that; null where only the file says. */
  | {
      readonly kind: 'judge';
      readonly mapping: readonly MappedColumn[];
      readonly leaveOut: boolean;
      readonly said: string | null;
    }
  /** Asks for a part of the time-line; `judge` has gone before. */
  | { readonly kind: 'window'; readonly window: TimelineWindow }
  /** Asks for the trace in parts ready to be sent; `judge` has gone before. */
  | { readonly kind: 'part'; readonly from: number };

export type LogAnswer =
  | { readonly kind: 'progress'; readonly share: number }
  | {
      readonly kind: 'opened';
      readonly headers: readonly string[];
      readonly fingerprint: string;
      /** The log says of itself that the stand-in rig made it. */
      readonly standIn: boolean;
      readonly rows: number;
      /** Rows that only say the header again, left out. */
      readonly repeatedHeaders: number;
      /** What was read otherwise than as it stands. */
      readonly noticed: readonly LogNotice[];
      /** What the file says it is about, where its step asks for that. */
      readonly said: string | null;
      readonly guesses: readonly GuessedColumn[];
    }
  | { readonly kind: 'unusable'; readonly problems: readonly ReadProblem[]; readonly count: number }
  | {
      readonly kind: 'judged';
      readonly result: StepEvaluation;
      /** What the log comes to for every other step that it answers, in the order of the plan. */
      readonly others: readonly StepEvaluation[];
      /** The whole of its time-line; null where the step has none. */
      readonly timeline: TimelinePart | null;
      /** Thinned samples of the mapped channels, SI, as a frame. */
      readonly preview: ArrayBuffer;
      readonly leftOut: readonly string[];
      readonly repeatedTimes: number;
      /** Channels that have to be looked at before the log counts, whoever mapped them. */
      readonly questioned: readonly QuestionedChannel[];
      /** Channels that the file calls by their own names. */
      readonly called: readonly string[];
    }
  | { readonly kind: 'window'; readonly timeline: TimelinePart }
  /** Samples `from` … of the trace as a frame, which the server takes; `next` is null after the last. */
  | {
      readonly kind: 'part';
      readonly bytes: ArrayBuffer;
      readonly next: number | null;
    };
