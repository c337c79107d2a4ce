'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { onwardFrom } from './onward';
import { kindOfSheet } from '@/core/families/registry';
import { optionTitle, writtenKey, type LookPoint, type LookStep } from '@/core/procedure/look-step';
import type { CautionId } from '@/core/vocabulary/caution-id';
import type { JobView } from '@/server/views/job-view';
import { Key } from '@/ui/parts/key';
import { send } from '@/ui/shell/request';
import { dropText, textsByName } from '@/ui/shell/browser-store';
import { useShop, useStored } from '@/ui/shell/shop-context';
import { BenchHead } from './bench-head';
import { CautionList } from './caution-list';
import { LookSketch } from './look-sketch';
import { ShutNotice, useShut } from './shut-notice';
import { StepList } from './step-list';
import { useKeyActions } from './use-key-actions';
import styles from './bench.module.css';

interface Props {
  readonly view: JobView;
  readonly step: string;
  readonly air: string;
  /** What the unit on the stand-in rig looks like: point → option; points not named look good. */
  readonly appearance: Readonly<Record<string, string>>;
}

/** Keys of the points by their number, and of the options of the point that is current. */
const pointKeys = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];
const optionKeys = ['q', 'w', 'e'];

/** A step that is looked at: every point gets a word. What is marked stays in this browser until it is kept. */
export function LookBench({ view, step: stepId, air, appearance }: Props) {
  const router = useRouter();
  const { person } = useShop();
  const kind = kindOfSheet(view.job.sheet);
  const step = kind?.steps.find((each) => each.id === stepId) as LookStep;
  const kept = view.steps.find((each) => each.id === stepId)?.evaluation.findings ?? null;
  const draftKey = `hard-pedal-look-${view.job.id}-${stepId}`;
  const [draft, setDraft] = useStored(draftKey, '');
  const marked = useMemo<Readonly<Record<string, string>>>(
    () => (draft === '' ? { ...kept } : textsByName(draft)),
    [draft, kept],
  );
  const [chosen, setChosen] = useState<string | null>(null);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const unread = step.cautions.filter((id) => !view.cautions.some((each) => each.caution === id));
  const plan = kind ? (step.feeds.look.plan?.(kind.sheet.prepare(view.job.sheet.spec)) ?? []) : [];
  const missing = step.feeds.look.points.filter((point) => marked[point.id] === undefined);
  const done = kept !== null && draft === '';
  const shut = useShut(view, stepId);
  // What was kept stays to be read; a new look waits for the interlock.
  const locked = done ? null : shut;
  const { later, href, hrefOnceKept } = onwardFrom(view, stepId);

  const attempt = async (work: () => Promise<void>) => {
    if (busy) return;
    setBusy(true);
    setTrouble('');
    try {
      await work();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
    setBusy(false);
  };
  const acknowledge = () =>
    attempt(async () => {
      await send(`/api/jobs/${view.job.id}/cautions`, { cautions: unread, person });
      router.refresh();
    });
  const keep = () =>
    attempt(async () => {
      await send(`/api/jobs/${view.job.id}/looks`, { step: stepId, findings: marked, person });
      dropText(draftKey);
      router.push(hrefOnceKept);
      router.refresh();
    });
  const primary = locked
    ? { title: locked.action.title, run: locked.action.run }
    : unread.length > 0
      ? { title: 'I have read these', run: () => void acknowledge() }
      : done
        ? { title: later ? `Next: ${later.title.toLowerCase()}` : 'Back to the job', run: () => router.push(href) }
        : { title: 'Keep these findings', run: () => void keep() };
  useKeyActions({
    primary: primary.run,
    secondary: null,
    again: null,
    stop: null,
    back: () => router.push(`/jobs/${view.job.id}`),
  });

  const firstOpen = missing[0]?.id ?? step.feeds.look.points[0].id;
  const current = chosen ?? firstOpen;
  const mark = (point: string, option: string) => setDraft(JSON.stringify({ ...marked, [point]: option }));
  const markCurrent = (at: number) => {
    const option = step.feeds.look.options[at];
    if (!option || unread.length > 0 || locked) return;
    mark(current, option.id);
    const next = step.feeds.look.points[step.feeds.look.points.findIndex((point) => point.id === current) + 1];
    setChosen(next?.id ?? null);
  };
  useHotkeys(pointKeys, (event) => setChosen(step.feeds.look.points[Number(event.key) - 1]?.id ?? null), [step]);
  useHotkeys(optionKeys, (event) => markCurrent(optionKeys.indexOf(event.key.toLowerCase())), [
    current,
    marked,
    unread.length,
  ]);

  const best = step.feeds.look.options[0];
  const restAs = () =>
    setDraft(JSON.stringify({ ...Object.fromEntries(missing.map((point) => [point.id, best.id])), ...marked }));
  const seen = (point: LookPoint) =>
    optionTitle(point, step.feeds.look.options.find((option) => option.id === appearance[point.id]) ?? best);

  return (
    <div className={styles.bench}>
      <BenchHead view={view} air={air} />
      <StepList view={view} current={stepId} />
      <main className={styles.work}>
        <h1>
          {locked
            ? `${step.title} is shut`
            : unread.length > 0
              ? 'Read these first'
              : done
                ? `${step.title}, kept`
                : `${step.title}: say what you find at each point`}
        </h1>
        <p className={styles.why}>{step.why}</p>
        {locked ? (
          <ShutNotice shut={locked.shut} />
        ) : unread.length > 0 ? (
          <CautionList ids={unread as readonly CautionId[]} />
        ) : (
          <div className={styles.lookWithSketch}>
            <div className={styles.look}>
              {plan.length > 0 && (
                <ol className={styles.plan} aria-label="How it is done here">
                  {plan.map((line) => (
                    <li key={line}>{line}</li>
                  ))}
                </ol>
              )}
              {step.feeds.look.points.map((point, at) => (
                <fieldset key={point.id} data-current={point.id === current}>
                  <legend>
                    <Key>{String(at + 1)}</Key> {point.title}
                    <small>{point.hint}</small>
                    <span className={styles.seen}>
                      On the stand-in: {seen(point).toLowerCase()}
                      {appearance[writtenKey(point.id)] ? `: ${appearance[writtenKey(point.id)]}` : ''}
                    </span>
                  </legend>
                  <div className={styles.options}>
                    {step.feeds.look.options.map((option, key) => (
                      <label key={option.id}>
                        <input
                          type="radio"
                          name={point.id}
                          value={option.id}
                          checked={marked[point.id] === option.id}
                          onChange={() => mark(point.id, option.id)}
                        />
                        {optionTitle(point, option)}
                        {point.id === current && <Key>{optionKeys[key].toUpperCase()}</Key>}
                      </label>
                    ))}
                  </div>
                  {point.writes && (
                    <TextField
                      id={`written-${point.id}`}
                      className={styles.written}
                      label={point.writes}
                      value={marked[writtenKey(point.id)] ?? ''}
                      disabled={done}
                      slotProps={{ htmlInput: { maxLength: 400 } }}
                      onChange={({ target }) => mark(writtenKey(point.id), target.value)}
                    />
                  )}
                </fieldset>
              ))}
            </div>
            <LookSketch step={step} marked={marked} current={current} onChoose={setChosen} />
          </div>
        )}
      </main>
      {trouble && (
        <p className={styles.trouble} role="alert">
          {trouble}
        </p>
      )}
      <footer className={styles.foot}>
        <Button className={styles.primary} variant="contained" color="primary" onClick={primary.run} disabled={busy}>
          {primary.title} <Key>Enter</Key>
        </Button>
        {!locked && unread.length === 0 && missing.length > 0 && (
          <Button onClick={restAs}>The rest: {best.title.toLowerCase()}</Button>
        )}
        <div className={styles.spring} />
        <p>
          {missing.length === 0
            ? 'Every point has a word'
            : `${missing.length} of ${step.feeds.look.points.length} points still to say`}
        </p>
      </footer>
    </div>
  );
}
