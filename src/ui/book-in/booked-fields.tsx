import type { Control, FieldPath, FieldValues } from 'react-hook-form';
import type { AnyKind } from '@/core/contract/kind';
import { FormText } from './form-text';
import { SymptomField } from './symptom-field';
import styles from './book-in.module.css';

interface Props<T extends FieldValues> {
  readonly control: Control<T>;
  /** Kind of the unit; undefined until its sheet is chosen. */
  readonly kind: AnyKind | undefined;
}

/** What is said of a unit, whenever it is said: its serial, what it came off, the complaint and what was noticed. */
export function BookedFields<T extends FieldValues>({ control, kind }: Props<T>) {
  const name = (field: 'serial' | 'vehicle' | 'complaint' | 'symptoms') => field as FieldPath<T>;
  return (
    <>
      <div className={styles.pair}>
        <FormText
          name={name('serial')}
          label="Serial"
          control={control}
          helperText="As stamped on the plate"
          autoComplete="off"
        />
        <FormText
          name={name('vehicle')}
          label="Came off"
          control={control}
          helperText="Vehicle or store"
          autoComplete="off"
        />
      </div>
      <FormText
        name={name('complaint')}
        label="Complaint"
        control={control}
        multiline
        minRows={2}
        helperText="In the driver’s words"
      />
      {kind && <SymptomField name={name('symptoms')} control={control} kind={kind} />}
    </>
  );
}
