'use client';
import Button from '@mui/material/Button';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import { useMemo } from 'react';
import { timelineEvents } from '@/charts/timeline';
import type { AnyKind } from '@/core/contract/kind';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { channelTitle } from '@/core/quantities/channels';
import { placeTitle } from '@/core/quantities/places';
import { isRowProblem } from '@/core/vocabulary/read-problem';
import { readProblemText } from '@/core/wording/read-problem-text';
import { Chart } from '@/ui/charts/chart';
import { TimelineView } from '@/ui/charts/timeline-view';
import { Choice } from '@/ui/parts/choice';
import { useShop } from '@/ui/shell/shop-context';
import { eventsOf } from './kept-log';
import { questionWords } from './log-words';
import { MappingTable } from './mapping-table';
import { offeredChannels } from './offered-channels';
import { ProblemList } from './problem-list';
import type { useLogPicture } from './use-log-picture';
import type { useLogQuestions } from './use-log-questions';
import type { LogState, useLogWorker } from './use-log-worker';
import styles from './bench.module.css';

interface Props {
  readonly log: ReturnType<typeof useLogWorker>;
  readonly mapped: Extract<LogState, { kind: 'mapped' }>;
  readonly step: MeasuredStep<unknown>;
  readonly kind: AnyKind;
  readonly questions: ReturnType<typeof useLogQuestions>;
  readonly picture: ReturnType<typeof useLogPicture>;
}

/** A log that was read: what its columns are taken for, what cannot be used of it, and how it looks. */
export function MappedLog({ log, mapped, step, kind, questions, picture }: Props) {
  const { units } = useShop();
  const { named } = step.feeds.log;
  const offered = useMemo(() => offeredChannels(kind, step), [kind, step]);
  return (
    <div className={styles.mapped}>
      {mapped.remembered && <p className={styles.note}>Understood as the last log with these headers.</p>}
      {questions.open.length > 0 && (
        <List className={styles.questions} aria-label="To be answered">
          {questions.open.map((question) => (
            <ListItem key={`${question.column} ${question.why}`}>
              {questionWords[question.why](question.header)}
              <Button size="small" className={styles.answer} onClick={() => questions.itIsSo(question)}>
                it is so
              </Button>
            </ListItem>
          ))}
        </List>
      )}
      {named && (
        <p className={styles.named}>
          <label htmlFor="log-named">{channelTitle(named.channel)}</label>
          <Choice id="log-named" value={mapped.said ?? ''} onChange={(said) => log.judge(mapped.mapping, false, said)}>
            {mapped.said === null && <option value="">say which</option>}
            {Object.keys(named.values).map((value) => (
              <option key={value} value={value}>
                {placeTitle(value)}
              </option>
            ))}
          </Choice>
        </p>
      )}
      <MappingTable
        headers={mapped.opened.headers}
        mapping={mapped.mapping}
        guesses={mapped.remembered ? null : mapped.opened.guesses}
        offered={offered}
        onChange={log.judge}
      />
      {mapped.problemCount > 0 && (
        <>
          <ProblemList texts={mapped.problems.slice(0, 8).map(readProblemText)} />
          {mapped.problemCount > 8 && <p>and {mapped.problemCount - 8} more.</p>}
          {mapped.problems.every(isRowProblem) && (
            <Button onClick={() => log.judge(mapped.mapping, true)}>
              Leave {mapped.problemCount === 1 ? 'this row' : `these ${mapped.problemCount} rows`} out; it is recorded
            </Button>
          )}
        </>
      )}
      {mapped.judged?.timeline ? (
        <div className={styles.timeline}>
          <TimelineView
            first={mapped.judged.timeline}
            look={log.look}
            events={timelineEvents(eventsOf([mapped.judged.result]))}
            units={units}
          />
        </div>
      ) : (
        picture && <Chart option={picture.option} text={picture.text} className={styles.chart} />
      )}
    </div>
  );
}
