'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import type { JobView } from '@/server/views/job-view';
import { send } from '@/ui/shell/request';
import { useRunStream } from './use-run-stream';

/** ms */
const askAgainAfter = 1_500;

const said = (error: unknown) => (error instanceof Error ? error.message : String(error));

/** The run of a step as the bench shows it, and what can be done with it. */
export function useBenchRun(view: JobView, stepId: string, person: string) {
  const router = useRouter();
  const open = view.openRun?.step === stepId ? view.openRun : null;
  const kept = view.steps.find((step) => step.id === stepId)?.runs.findLast((run) => run.ofThisRound)?.id ?? null;
  const [chosen, setChosen] = useState<string | null>(null);
  const [attempt, setAttempt] = useState(0);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const runId = chosen ?? open?.id ?? kept;
  const stream = useRunStream(runId, attempt);
  // What went wrong while nobody answered is over once somebody does.
  const [wasSilent, setWasSilent] = useState(false);
  if (stream.silent !== wasSilent) {
    setWasSilent(stream.silent);
    if (!stream.silent) setTrouble('');
  }
  /** Whether this screen has ended the run itself. */
  const [endedHere, setEndedHere] = useState<string | null>(null);
  const [loaded, setLoaded] = useState<{ id: string; result: StepEvaluation } | null>(null);

  const finished = stream.state === 'complete' || stream.state === 'kept';
  useEffect(() => {
    if (!runId || !finished) return;
    let current = true;
    let again: ReturnType<typeof setTimeout> | null = null;
    // An answer that did not come is asked for again, until it comes or the screen goes.
    const ask = () =>
      fetch(`/api/runs/${runId}/result`)
        .then((response) =>
          response.ok ? response.json() : Promise.reject(new Error('The result could not be read yet.')),
        )
        .then((result: StepEvaluation) => {
          if (!current) return;
          setLoaded({ id: runId, result });
          setTrouble('');
        })
        .catch((error: unknown) => {
          if (!current) return;
          setTrouble(said(error));
          again = setTimeout(() => void ask(), askAgainAfter);
        });
    void ask();
    return () => {
      current = false;
      if (again) clearTimeout(again);
    };
  }, [runId, finished]);

  // A second Start while one is on its way is dropped; an order to the rig never is (see `command`).
  const act = useCallback(
    async (work: () => Promise<void>) => {
      if (busy) return;
      setBusy(true);
      setTrouble('');
      try {
        await work();
      } catch (error) {
        setTrouble(said(error));
      }
      setBusy(false);
    },
    [busy],
  );

  const begin = async (again = false) => {
    const { id } = await send<{ id: string }>(`/api/jobs/${view.job.id}/runs`, { step: stepId, person, again });
    setChosen(id);
    setAttempt((was) => was + 1);
    router.refresh();
  };
  const ends = new Set(['stop', 'discard', 'keep']);
  const tell = (action: string) => {
    if (ends.has(action)) setEndedHere(runId);
    return send<object>(`/api/runs/${runId}`, { action, person });
  };

  return {
    runId,
    stream,
    /** The run was ended, or thrown away, by another screen. */
    endedElsewhere:
      (stream.state === 'complete' && stream.status?.done === false && endedHere !== runId) ||
      (stream.state === 'discarded' && endedHere !== runId),
    result: loaded?.id === runId && finished ? loaded.result : null,
    busy,
    trouble,
    setTrouble,
    start: () => act(() => begin()),
    // A finished run is set aside until the new one is kept; one that broke off is thrown away.
    again: () =>
      act(async () => {
        if (stream.state === 'interrupted' || stream.state === 'recording') await tell('discard');
        await begin(true);
      }),
    /** Throws this run away; the one that was set aside for it comes back. */
    discard: () =>
      act(async () => {
        await tell('discard');
        setChosen(null);
        setAttempt((was) => was + 1);
        router.refresh();
      }),
    stop: () => act(async () => void (await tell('stop'), setAttempt((was) => was + 1), router.refresh())),
    resume: () => act(async () => void (await tell('resume'), setAttempt((was) => was + 1), router.refresh())),
    keep: () =>
      act(async () => {
        await tell('keep');
        const after = view.steps.slice(view.steps.findIndex((step) => step.id === stepId) + 1);
        const waits = (step: (typeof after)[number]) => step.evaluation.verdict === 'not-run';
        // What was shut for want of this comes first: anything else may shut it again.
        const next = view.steps.find((step) => waits(step) && step.shut?.opener === stepId) ?? after.find(waits);
        router.push(next ? `/jobs/${view.job.id}/bench/${next.id}` : `/jobs/${view.job.id}`);
        router.refresh();
      }),
    command: (body: object) =>
      send(`/api/runs/${runId}/command`, body).then(
        () => {
          setTrouble('');
          return true;
        },
        (error: unknown) => {
          setTrouble(said(error));
          return false;
        },
      ),
  };
}
