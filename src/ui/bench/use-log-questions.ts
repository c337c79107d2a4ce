'use client';
import { useState } from 'react';
import type { MappedColumn } from '@/core/formats/column-mapping';
import { mappingQuestions, type MappingQuestion } from '@/core/formats/mapping-questions';
import type { LogState } from './use-log-worker';

/** One question about a column as it was when somebody said that it is so: mapped otherwise it is asked about again. */
const answerOf = (file: string, mapped: MappedColumn, { column, why }: Pick<MappingQuestion, 'column' | 'why'>) =>
  `${file} ${column} ${why} ${JSON.stringify(mapped)}`;

/** What a log's columns leave open, and a way to say of one that it is so. */
export function useLogQuestions(state: LogState) {
  const [answered, setAnswered] = useState<ReadonlySet<string>>(new Set());
  const open: readonly MappingQuestion[] =
    state.kind === 'mapped'
      ? mappingQuestions(
          state.opened.headers,
          state.mapping,
          state.opened.guesses,
          state.remembered,
          state.judged?.questioned,
        ).filter((question) => !answered.has(answerOf(state.name, state.mapping[question.column], question)))
      : [];
  const itIsSo = (question: MappingQuestion) => {
    if (state.kind !== 'mapped') return;
    const said = answerOf(state.name, state.mapping[question.column], question);
    setAnswered((before) => new Set([...before, said]));
  };
  return { open, itIsSo };
}
