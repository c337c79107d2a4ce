'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState, type ReactNode } from 'react';
import { Controller, useForm } from 'react-hook-form';
import type { SiteInstrument } from '@/core/formats/site-file';
import { channels, channelTitle } from '@/core/quantities/channels';
import { dropDraft, useDraft } from '@/ui/book-in/use-draft';
import { send } from '@/ui/shell/request';
import { showRefusal } from '@/ui/shell/show-refusal';
import { typedNumber } from '@/ui/shell/typed-number';
import styles from './instruments.module.css';

interface Fields {
  channel: string;
  name: string;
  range: string;
  resolution: string;
  unit: string;
  classPercent: string;
  classOf: 'full-scale' | 'reading';
  stabilityPercent: string;
  lagSeconds: string;
  calibratedOn: string;
  dueOn: string;
}

interface Props {
  /** The instrument that is changed; null for a new one. */
  readonly instrument: SiteInstrument | null;
  readonly onDone: () => void;
  readonly onCancel: () => void;
}

const empty: Fields = {
  channel: 'supply_vacuum',
  name: '',
  range: '',
  resolution: '',
  unit: 'kPa',
  classPercent: '',
  classOf: 'full-scale',
  stabilityPercent: '',
  lagSeconds: '',
  calibratedOn: '',
  dueOn: '',
};

/** One instrument: what it measures, how well, and until when that is proved. What is typed stays until it is kept. */
export function InstrumentForm({ instrument, onDone, onCancel }: Props) {
  const draft = `instrument-${instrument?.channel ?? 'new'}`;
  const form = useForm<Fields>({
    defaultValues: instrument
      ? {
          ...instrument,
          name: instrument.name ?? '',
          range: String(instrument.range),
          resolution: String(instrument.resolution),
          classPercent: String(instrument.classPercent),
          stabilityPercent: instrument.stabilityPercent === undefined ? '' : String(instrument.stabilityPercent),
          lagSeconds: instrument.lagSeconds === undefined ? '' : String(instrument.lagSeconds),
          calibratedOn: instrument.calibratedOn ?? '',
          dueOn: instrument.dueOn ?? '',
        }
      : empty,
  });
  useDraft(draft, form);
  const [trouble, setTrouble] = useState('');
  const save = form.handleSubmit(async (values) => {
    setTrouble('');
    try {
      await send(
        '/api/instruments',
        {
          ...values,
          range: typedNumber(values.range),
          resolution: typedNumber(values.resolution),
          classPercent: typedNumber(values.classPercent),
          // Nothing typed is nothing known: the usual tenth is taken.
          stabilityPercent: values.stabilityPercent.trim() === '' ? undefined : typedNumber(values.stabilityPercent),
          lagSeconds: values.lagSeconds.trim() === '' ? undefined : typedNumber(values.lagSeconds),
        },
        'PUT',
      );
      dropDraft(draft);
      onDone();
    } catch (error) {
      setTrouble(showRefusal(form, error));
    }
  });

  const field = (
    name: keyof Fields,
    label: string,
    more: { type?: string; help?: string; options?: ReactNode } = {},
  ) => (
    <Controller
      name={name}
      control={form.control}
      render={({ field: { ref, ...input }, fieldState }) => (
        <TextField
          {...input}
          id={`instrument-${name}`}
          inputRef={ref}
          label={label}
          type={more.type}
          select={more.options !== undefined}
          error={fieldState.invalid}
          helperText={fieldState.error?.message ?? more.help ?? ' '}
          slotProps={{ select: { native: true }, inputLabel: more.type === 'date' ? { shrink: true } : {} }}
        >
          {more.options}
        </TextField>
      )}
    />
  );

  return (
    <form className={styles.form} onSubmit={(event) => void save(event)} noValidate aria-label="Instrument">
      {trouble && <p role="alert">{trouble}</p>}
      <div className={styles.fields}>
        {field('channel', 'Measures', {
          options: channels
            .filter((channel) => channel.dimension !== 'ratio')
            .map((channel) => (
              <option key={channel.id} value={channel.id}>
                {channelTitle(channel.id)}
              </option>
            )),
        })}
        {field('name', 'Name', { help: 'As the shop knows it' })}
        {field('range', 'Range', { help: 'Full scale' })}
        {field('unit', 'Unit', { help: 'kPa, bar, psi, inHg, N, mm …' })}
        {field('resolution', 'Division', { help: 'Smallest one can honestly tell apart' })}
        {field('classPercent', 'Class, %')}
        {field('classOf', 'Of', {
          options: [
            <option key="full-scale" value="full-scale">
              full scale
            </option>,
            <option key="reading" value="reading">
              reading
            </option>,
          ],
        })}
        {field('stabilityPercent', 'Drift a minute, % of class', { help: '10 where nothing is known' })}
        {field('lagSeconds', 'Lag with its line, s', { help: 'Left empty, it is read from each log' })}
        {field('calibratedOn', 'Calibrated on', { type: 'date' })}
        {field('dueOn', 'Due on', { type: 'date' })}
      </div>
      <div className={styles.row}>
        <Button type="submit" variant="contained" color="primary" loading={form.formState.isSubmitting}>
          {instrument ? 'Keep the change' : 'Mount it'}
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
      </div>
    </form>
  );
}
