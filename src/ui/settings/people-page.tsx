'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Controller, useFieldArray, useForm, useWatch } from 'react-hook-form';
import type { Person } from '@/data/settings';
import { dropDraft, useDraft } from '@/ui/book-in/use-draft';
import { PageHead } from '@/ui/shell/frame';
import { ShellControls } from '@/ui/shell/key-map';
import { send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import { showRefusal } from '@/ui/shell/show-refusal';
import styles from '@/ui/book-in/book-in.module.css';

interface Fields {
  people: { id: string; name: string; role: string }[];
}

/** Rows that were typed and not saved; nothing where none were, or what is kept is no list. */
function rowsIn(kept: string | null): Partial<Fields> {
  try {
    const { people } = JSON.parse(kept ?? '{}') as Partial<Fields>;
    const isRow = (row: unknown) => Object.values(row ?? {}).every((each) => typeof each === 'string');
    return Array.isArray(people) && people.every(isRow) ? { people } : {};
  } catch {
    return {};
  }
}

const nobody = { id: '', name: '', role: 'technician' };

/** Who works here: entered, changed and taken off the list. */
export function PeoplePage({ people, version }: { readonly people: readonly Person[]; readonly version: number }) {
  const router = useRouter();
  // `id` is the list's own word for a row.
  const form = useForm<Fields>({ defaultValues: { people: people.length > 0 ? [...people] : [nobody] } });
  const { person, setPerson } = useShop();
  // What was typed over another list is no draft of this one.
  const draft = `people-${version}`;
  useDraft(draft, form, rowsIn);
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'people', keyName: 'row' });
  const typed = useWatch({ control: form.control, name: 'people' });
  const [said, setSaid] = useState('');
  const save = form.handleSubmit(async (values) => {
    setSaid('');
    form.clearErrors();
    try {
      await send('/api/people', values, 'PUT');
      dropDraft(draft);
      setSaid('Saved.');
      // Whoever is at this screen is so under the new name.
      const own = people.find(({ name }) => name === person)?.id;
      const renamed = values.people.find(({ id }) => id === own && id !== '');
      if (renamed) setPerson(renamed.name.trim());
      router.refresh();
    } catch (error) {
      setSaid(showRefusal(form, error));
    }
  });
  const text = (at: number, name: 'name' | 'role', label: string) => (
    <Controller
      name={`people.${at}.${name}`}
      control={form.control}
      render={({ field: { ref, ...input }, fieldState }) => (
        <TextField
          {...input}
          id={`people-${at}-${name}`}
          inputRef={ref}
          label={`${label} ${at + 1}`}
          autoComplete="off"
          error={fieldState.invalid}
          helperText={fieldState.error?.message}
        />
      )}
    />
  );
  return (
    <>
      <PageHead title="People" actions={<ShellControls />} />
      <div className={styles.layout}>
        <form className={styles.form} onSubmit={(event) => void save(event)} noValidate>
          {said && <p role="status">{said}</p>}
          {fields.map(({ row }, at) => (
            <div key={row} className={styles.person}>
              {text(at, 'name', 'Name')}
              {text(at, 'role', 'Role')}
              <Button
                onClick={() => remove(at)}
                aria-label={`Take off the list: ${typed[at]?.name || `row ${at + 1}`}`}
              >
                Take off
              </Button>
            </div>
          ))}
          <div className={styles.row}>
            <Button type="submit" variant="contained" color="primary" loading={form.formState.isSubmitting}>
              Save
            </Button>
            <Button onClick={() => append(nobody)}>Add somebody</Button>
          </div>
        </form>
        <aside className={styles.side} aria-label="What the list is for">
          <h2>Who is at the screen</h2>
          <p>On the list: {people.map(({ name }) => name).join(', ') || 'nobody yet'}.</p>
          <p>
            Everything that is put on record says who did it: one of these, chosen at the head of each place. While the
            list is empty, anybody may.
          </p>
          <p>Who is taken off the list, or gets another name, stands in what was done before under the name of then.</p>
          <p>
            Back to the <Link href="/settings">settings</Link>.
          </p>
        </aside>
      </div>
    </>
  );
}
