import TextField from '@mui/material/TextField';
import type { ComponentProps } from 'react';
import { Controller, type Control, type FieldPath, type FieldValues } from 'react-hook-form';

interface Props<T extends FieldValues> extends Partial<Omit<ComponentProps<typeof TextField>, 'name'>> {
  readonly name: FieldPath<T>;
  readonly label: string;
  readonly control: Control<T>;
}

/** A field of a form of what is booked, with what is wrong with it in place of its advice. */
export function FormText<T extends FieldValues>({ name, label, control, ...more }: Props<T>) {
  return (
    <Controller
      name={name}
      control={control}
      render={({ field: { ref, ...field }, fieldState }) => (
        <TextField
          {...field}
          {...more}
          id={`book-in-${name}`}
          inputRef={ref}
          label={label}
          error={fieldState.invalid}
          helperText={fieldState.error?.message ?? more.helperText ?? ' '}
        />
      )}
    />
  );
}
