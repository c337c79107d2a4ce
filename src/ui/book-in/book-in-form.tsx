'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { kindOfSheet } from '@/core/families/registry';
import type { Job } from '@/data/jobs';
import type { StoredSheet } from '@/data/unit-sheets';
import type { Air } from '@/core/quantities/standard-atmosphere';
import { SheetCurve } from '@/ui/sheets/sheet-curve';
import { PageHead } from '@/ui/shell/frame';
import { send } from '@/ui/shell/request';
import { showRefusal } from '@/ui/shell/show-refusal';
import { useShop } from '@/ui/shell/shop-context';
import { BookedFields } from './booked-fields';
import { FormText } from './form-text';
import { KnownSerialPanel, useKnownSerial } from './known-serial';
import { wordsIn } from './symptom-field';
import { dropDraft, useDraft } from './use-draft';
import styles from './book-in.module.css';

interface Fields {
  sheetId: string;
  serial: string;
  vehicle: string;
  complaint: string;
  /** Ids, parted by spaces: a draft keeps texts. */
  symptoms: string;
  promisedAt: string;
  plan: string;
  standInFault: string;
}

const empty: Fields = {
  sheetId: '',
  serial: '',
  vehicle: '',
  complaint: '',
  symptoms: '',
  promisedAt: '',
  plan: '',
  standInFault: '',
};

interface Props {
  readonly sheets: readonly StoredSheet[];
  readonly chosenSheet: string;
  readonly air: Air;
  /** Job whose unit this one is to look behind, and the family that does; null for a unit of its own. */
  readonly behind?:
    | (Pick<Job, 'id' | 'number' | 'serial' | 'vehicle' | 'complaint'> & {
        readonly family: string;
        readonly released: boolean;
      })
    | null;
  /** It was asked for behind a job that is gone, or that has not come to an end that is looked behind. */
  readonly notBehind?: boolean;
}

/** Books a unit in. What is typed stays in this browser until it has been booked. */
export function BookInForm({ sheets: all, chosenSheet, air, behind = null, notBehind = false }: Props) {
  const router = useRouter();
  const { person } = useShop();
  const sheets = behind ? all.filter(({ family }) => family === behind.family) : all;
  const taken = behind && { serial: behind.serial, vehicle: behind.vehicle, complaint: behind.complaint };
  const only = behind && sheets.length === 1 ? sheets[0].id : '';
  const form = useForm<Fields>({ defaultValues: { ...empty, sheetId: chosenSheet || only, ...taken } });
  // What is typed behind one job is no draft of another.
  const draft = behind ? `book-in-behind-${behind.id}` : 'book-in';
  useDraft(draft, form);
  const [trouble, setTrouble] = useState('');
  const sheetId = useWatch({ control: form.control, name: 'sheetId' });
  const sheet = sheets.find((each) => each.id === sheetId);
  const kind = sheet ? kindOfSheet(sheet) : undefined;

  const serial = useWatch({ control: form.control, name: 'serial' });
  const known = useKnownSerial(behind ? '' : serial);

  const plans = kind?.plans ?? [];
  const planOr = (id: string) => plans.find((plan) => plan.id === id)?.id ?? plans[0]?.id;

  const submit = (promiseConfirmed: string) => async (values: Fields) => {
    setTrouble('');
    try {
      const symptoms = wordsIn(values.symptoms).filter((id) => kind?.symptoms.some((symptom) => symptom.id === id));
      const booked = {
        ...values,
        symptoms,
        plan: planOr(values.plan),
        person,
        promiseConfirmed,
        behindOf: behind?.id ?? '',
      };
      const job = await send<{ id: string }>('/api/jobs', booked);
      dropDraft(draft);
      router.push(`/jobs/${job.id}`);
    } catch (error) {
      setTrouble(showRefusal(form, error));
    }
  };
  const book = form.handleSubmit(submit(''));
  const { promisedAt: promiseRefused } = form.formState.errors;
  const bookAsPromised = () => {
    form.clearErrors();
    return form.handleSubmit(submit(form.getValues('promisedAt')))();
  };

  const text = (
    name: keyof Fields,
    label: string,
    more: Partial<Omit<React.ComponentProps<typeof FormText>, 'name' | 'control'>> = {},
  ) => <FormText {...more} name={name} label={label} control={form.control} />;

  return (
    <>
      <PageHead title={behind ? `Look behind job ${behind.number}` : 'Book in a unit'} />
      <div className={styles.layout}>
        <form className={styles.form} onSubmit={(event) => void book(event)} noValidate>
          {trouble && (
            <p className={styles.error} role="alert">
              {trouble}
            </p>
          )}
          {notBehind && (
            <p className={styles.note} role="status">
              The job to look behind is gone, or its inquiry has not ended at something that is looked behind: this
              books in a unit of its own.
            </p>
          )}
          {behind?.released && (
            <p className={styles.note} role="status">
              Job {behind.number} is released. Booking this in withdraws the release until what is behind it is found
              good.
            </p>
          )}
          {text('sheetId', 'Unit sheet', {
            select: true,
            helperText: 'Not in the library? Measure its diameters and make a sheet.',
            children: sheets.map((each) => (
              <MenuItem key={each.id} value={each.id}>
                {each.name}
              </MenuItem>
            )),
          })}
          <BookedFields control={form.control} kind={kind} />
          {plans.length > 1 &&
            text('plan', 'Tested as', {
              select: true,
              helperText: 'What the unit is judged on',
              slotProps: { select: { displayEmpty: true } },
              children: plans.map((plan, at) => (
                <MenuItem key={plan.id} value={at === 0 ? '' : plan.id}>
                  {plan.title}
                </MenuItem>
              )),
            })}
          <div className={styles.pair}>
            {text('promisedAt', 'Promised for', { type: 'datetime-local' })}
            {text('standInFault', 'Stand-in rig mounts', {
              select: true,
              helperText: 'Only the stand-in rig uses this',
              slotProps: { select: { displayEmpty: true } },
              children: [
                <MenuItem key="" value="">
                  a sound unit
                </MenuItem>,
                ...(kind?.model.faults ?? []).map((fault) => (
                  <MenuItem key={fault.id} value={fault.id}>
                    {fault.title}
                  </MenuItem>
                )),
              ],
            })}
          </div>
          <div className={styles.row}>
            <Button type="submit" variant="contained" color="primary" loading={form.formState.isSubmitting}>
              Book in
            </Button>
            {promiseRefused && form.getValues('promisedAt') !== '' && (
              <Button onClick={() => void bookAsPromised()}>It was promised for then: book in</Button>
            )}
            <Button component={Link} href="/sheets/new">
              Make a sheet from measured diameters
            </Button>
          </div>
        </form>
        <aside className={styles.side} aria-label="What this unit should do">
          {known && (
            <KnownSerialPanel
              known={known}
              onTake={({ vehicle, sheetId: taken }) => {
                form.setValue('vehicle', vehicle, { shouldValidate: true });
                if (taken !== null) form.setValue('sheetId', taken, { shouldValidate: true });
              }}
            />
          )}
          {sheet ? (
            <>
              <h2>{sheet.name}</h2>
              <p>Where a sound one lies in today’s air.</p>
              <SheetCurve familyId={sheet.family} spec={sheet.spec} air={air} className={styles.chart} />
            </>
          ) : (
            <p>Choose a sheet, and the band that this unit should lie in is drawn here.</p>
          )}
        </aside>
      </div>
    </>
  );
}
