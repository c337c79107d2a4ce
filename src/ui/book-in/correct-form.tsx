'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { kindOfSheet } from '@/core/families/registry';
import { typedTime } from '@/core/wording/shop-time';
import type { StoredSheet } from '@/data/unit-sheets';
import type { JobView } from '@/server/views/job-view';
import { Tag } from '@/ui/parts/tag';
import { PageHead } from '@/ui/shell/frame';
import { send } from '@/ui/shell/request';
import { showRefusal } from '@/ui/shell/show-refusal';
import { useShop } from '@/ui/shell/shop-context';
import { BookedFields } from './booked-fields';
import { FormText } from './form-text';
import { wordsIn } from './symptom-field';
import { dropDraft, useDraft } from './use-draft';
import styles from './book-in.module.css';

interface Fields {
  serial: string;
  vehicle: string;
  complaint: string;
  /** Ids, parted by spaces: a draft keeps texts. */
  symptoms: string;
  promisedAt: string;
  sheetId: string;
}

interface Props {
  readonly view: Pick<JobView, 'job' | 'releases' | 'openRun'>;
  readonly sheets: readonly StoredSheet[];
}

/** Corrects what was booked of a unit: what stood before stays on record. What is typed stays in this browser until it is sent. */
export function CorrectForm({ view: { job, releases, openRun }, sheets }: Props) {
  const router = useRouter();
  const { person, zone } = useShop();
  const kind = kindOfSheet(job.sheet);
  const others = sheets.filter((each) => kind !== undefined && kindOfSheet(each) === kind);
  // What the person has seen: only what is otherwise is sent, so that a correction takes nothing back that somebody else corrected.
  const [seen] = useState<Fields>({
    serial: job.serial,
    vehicle: job.vehicle,
    complaint: job.complaint,
    symptoms: job.symptoms.join(' '),
    promisedAt: job.promisedAt === null ? '' : typedTime(job.promisedAt, zone),
    sheetId: '',
  });
  const form = useForm<Fields>({ defaultValues: seen });
  // What was typed over another record is no draft of this one.
  const draft = `correct-${job.id}-${job.version}`;
  useDraft(draft, form);
  const [trouble, setTrouble] = useState('');
  const released = releases.some((each) => each.kind === 'released' && each.withdrawn === null);

  const submit = (promiseConfirmed: string) => async (values: Fields) => {
    setTrouble('');
    try {
      const { symptoms, ...texts } = values;
      const otherwise = Object.entries(texts).filter(([name, text]) => text !== seen[name as keyof Fields]);
      const corrected = {
        ...Object.fromEntries(otherwise),
        ...(symptoms === seen.symptoms ? {} : { symptoms: wordsIn(symptoms) }),
      };
      await send(`/api/jobs/${job.id}/booking`, { ...corrected, person, promiseConfirmed }, 'PUT');
      dropDraft(draft);
      router.push(`/jobs/${job.id}`);
      router.refresh();
    } catch (error) {
      setTrouble(showRefusal(form, error));
    }
  };
  const { promisedAt: promiseRefused } = form.formState.errors;
  const asPromised = () => {
    form.clearErrors();
    return form.handleSubmit(submit(form.getValues('promisedAt')))();
  };
  const leave = () => {
    dropDraft(draft);
    router.push(`/jobs/${job.id}`);
  };
  const { control } = form;
  return (
    <>
      <PageHead title={`Correct job ${job.number}`}>
        <Tag serial={job.serial} />
      </PageHead>
      <div className={styles.layout}>
        <form className={styles.form} onSubmit={(event) => void form.handleSubmit(submit(''))(event)} noValidate>
          {trouble && (
            <p className={styles.error} role="alert">
              {trouble}
            </p>
          )}
          {released && (
            <p className={styles.note} role="status">
              This unit is released. Another serial, vehicle or sheet withdraws the release: its paper would name
              another unit.
            </p>
          )}
          <BookedFields control={control} kind={kind} />
          <div className={styles.pair}>
            <FormText name="promisedAt" label="Promised for" control={control} type="datetime-local" />
            <FormText
              name="sheetId"
              label="Unit sheet"
              control={control}
              select
              disabled={openRun !== null}
              helperText={
                openRun === null
                  ? 'Another one judges anew what was measured'
                  : 'Not while a run is open: keep it or throw it away first'
              }
              slotProps={{ select: { displayEmpty: true } }}
            >
              <MenuItem value="">{job.sheet.name}, as it was booked</MenuItem>
              {others.map((each) => (
                <MenuItem key={each.id} value={each.id}>
                  {each.name}, from the library
                </MenuItem>
              ))}
            </FormText>
          </div>
          <div className={styles.row}>
            <Button type="submit" variant="contained" color="primary" loading={form.formState.isSubmitting}>
              Correct it
            </Button>
            {promiseRefused && form.getValues('promisedAt') !== '' && (
              <Button onClick={() => void asPromised()}>It was promised for then: correct it</Button>
            )}
            <Button onClick={leave}>Leave it as it was</Button>
          </div>
        </form>
        <aside className={styles.side} aria-label="What a correction does">
          <h2>What stood before stays on record</h2>
          <p>
            The job says what was corrected, by whom and when; within a day it can be brought back. Papers that were
            issued stay as they are.
          </p>
          <p>
            A unit of another kind is no correction: <Link href={`/jobs/${job.id}`}>take the job out of the book</Link>{' '}
            and book it in anew.
          </p>
        </aside>
      </div>
    </>
  );
}
