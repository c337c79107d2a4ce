import Checkbox from '@mui/material/Checkbox';
import FormControl from '@mui/material/FormControl';
import FormControlLabel from '@mui/material/FormControlLabel';
import FormGroup from '@mui/material/FormGroup';
import FormHelperText from '@mui/material/FormHelperText';
import FormLabel from '@mui/material/FormLabel';
import { Controller, type Control, type FieldPath, type FieldValues } from 'react-hook-form';
import type { AnyKind } from '@/core/contract/kind';
import styles from './book-in.module.css';

/** Ids that stand in a text, parted by spaces: a draft keeps texts. */
export const wordsIn = (text: string): string[] => text.split(' ').filter(Boolean);

interface Props<T extends FieldValues> {
  readonly name: FieldPath<T>;
  readonly control: Control<T>;
  readonly kind: AnyKind;
}

/** What the driver noticed: a box for each symptom that a unit of this kind can have. */
export function SymptomField<T extends FieldValues>({ name, control, kind }: Props<T>) {
  return (
    <Controller
      name={name}
      control={control}
      render={({ field: { value, onChange }, fieldState }) => (
        <FormControl component="fieldset" error={fieldState.invalid}>
          <FormLabel component="legend">What the driver noticed</FormLabel>
          <FormGroup className={styles.symptoms}>
            {kind.symptoms.map(({ id, title }) => (
              <FormControlLabel
                key={id}
                label={title}
                control={
                  <Checkbox
                    size="small"
                    checked={wordsIn(value).includes(id)}
                    onChange={({ target }) =>
                      onChange(
                        [...wordsIn(value).filter((each) => each !== id), ...(target.checked ? [id] : [])].join(' '),
                      )
                    }
                  />
                }
              />
            ))}
          </FormGroup>
          <FormHelperText>{fieldState.error?.message ?? 'As many as hold; none where nobody said'}</FormHelperText>
        </FormControl>
      )}
    />
  );
}
