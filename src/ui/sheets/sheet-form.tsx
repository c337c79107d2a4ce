'use client';
import Button from '@mui/material/Button';
import InputAdornment from '@mui/material/InputAdornment';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { families, findFamily } from '@/core/families/registry';
import { kindOf } from '@/core/contract/family';
import type { SheetField } from '@/core/contract/sheet-field';
import { dropDraft, useDraft } from '@/ui/book-in/use-draft';
import { PageHead } from '@/ui/shell/frame';
import { Refused, send } from '@/ui/shell/request';
import { showRefusal } from '@/ui/shell/show-refusal';
import type { Air } from '@/core/quantities/standard-atmosphere';
import { SheetCurve } from './sheet-curve';
import { specFromText } from './spec-from-text';
import styles from './sheets.module.css';

const groups: readonly { readonly id: SheetField['group']; readonly title: string; readonly note: string }[] = [
  { id: 'size', title: 'Measured on the unit', note: '' },
  { id: 'behaviour', title: 'How it behaves', note: 'From the maker’s data where there is any; it always wins.' },
  { id: 'tolerance', title: 'Tolerances', note: 'Left empty, the workshop’s own apply.' },
  { id: 'limit', title: 'Limits', note: 'Left empty, the workshop’s own apply.' },
];

type Values = Record<string, string>;

/** Makes a unit sheet; the expected curve is drawn as the diameters are typed. */
export function SheetForm({ air }: { readonly air: Air }) {
  const router = useRouter();
  const form = useForm<Values>({ defaultValues: { family: families[0].id, name: '' } });
  useDraft('sheet', form);
  const [trouble, setTrouble] = useState('');
  const values = useWatch({ control: form.control }) as Values;
  const kind = kindOf(findFamily(values.family) ?? families[0], values);
  const typed = JSON.stringify(values);
  const { spec, problems } = useMemo(() => specFromText(kind, JSON.parse(typed) as Values), [kind, typed]);
  const missing = kind.sheet.fields.filter((field) => field.required && !values[field.name]?.trim());

  const save = form.handleSubmit(async () => {
    setTrouble('');
    try {
      if (Object.keys(problems).length > 0) throw new Refused('Some fields need another look.', problems);
      const stored = await send<{ id: string }>('/api/sheets', { family: kind.family, name: values.name, spec });
      dropDraft('sheet');
      router.push(`/book-in?sheet=${stored.id}`);
    } catch (error) {
      setTrouble(showRefusal(form, error));
    }
  });

  const input = (
    name: string,
    label: string,
    more: Partial<React.ComponentProps<typeof TextField>> & { unit?: string } = {},
  ) => {
    const { unit, ...rest } = more;
    return (
      <Controller
        key={name}
        name={name}
        control={form.control}
        defaultValue=""
        render={({ field: { ref, ...field }, fieldState }) => {
          // Said at once where a figure cannot be right; a field still empty is only named on saving.
          const now = values[name]?.trim() ? problems[name] : undefined;
          const message = fieldState.error?.message ?? now;
          return (
            <TextField
              {...field}
              {...rest}
              id={`sheet-${name}`}
              inputRef={ref}
              label={label}
              error={message !== undefined}
              helperText={message ?? rest.helperText ?? ' '}
              slotProps={{
                htmlInput: { inputMode: unit ? 'decimal' : 'text' },
                input: unit ? { endAdornment: <InputAdornment position="end">{unit}</InputAdornment> } : {},
              }}
            />
          );
        }}
      />
    );
  };

  const fieldsOf = (group: SheetField['group']) =>
    kind.sheet.fields
      .filter((field) => field.group === group)
      .map((field) =>
        input(field.name, field.required ? `${field.label} *` : field.label, {
          unit: field.unit === '1' || field.choices ? undefined : field.unit,
          helperText: field.help || ' ',
          ...(field.choices
            ? {
                select: true,
                children: [
                  <MenuItem key="" value="">
                    not said
                  </MenuItem>,
                  ...field.choices.map((choice) => (
                    <MenuItem key={choice.value} value={choice.value}>
                      {choice.title}
                    </MenuItem>
                  )),
                ],
              }
            : {}),
        }),
      );

  return (
    <>
      <PageHead title="Make a unit sheet" />
      <div className={styles.layout}>
        <form className={styles.form} onSubmit={(event) => void save(event)} noValidate>
          {trouble && (
            <p className={styles.error} role="alert">
              {trouble}
            </p>
          )}
          <section className={styles.group}>
            <h2>Which unit</h2>
            <div className={styles.fields}>
              {input('name', 'Name', { helperText: 'Maker and model, or what it came off' })}
              {input('family', 'Kind', {
                select: true,
                children: families.map((each) => (
                  <MenuItem key={each.id} value={each.id}>
                    {each.title}
                  </MenuItem>
                )),
              })}
              {fieldsOf('identity')}
            </div>
          </section>
          {groups.map((group) => (
            <section key={group.id} className={styles.group}>
              <h2>{group.title}</h2>
              {group.note && <p>{group.note}</p>}
              <div className={styles.fields}>{fieldsOf(group.id)}</div>
            </section>
          ))}
          <Button type="submit" variant="contained" color="primary" sx={{ justifySelf: 'start' }}>
            Save and book in
          </Button>
        </form>
        <aside className={styles.side} aria-label="Expected curve">
          <h2>{values.name?.trim() || 'This unit'}</h2>
          <p>Where a sound one lies in today’s air.</p>
          {Object.keys(problems).length === 0 && missing.length === 0 ? (
            <SheetCurve familyId={kind.family} spec={spec} air={air} className={styles.chart} />
          ) : (
            <div className={styles.waiting}>
              {missing.length > 0
                ? `The curve is drawn as soon as these are typed: ${missing.map((field) => field.label.toLowerCase()).join(', ')}.`
                : 'The curve waits for the marked fields.'}
            </div>
          )}
        </aside>
      </div>
    </>
  );
}
