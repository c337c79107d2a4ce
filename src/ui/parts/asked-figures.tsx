'use client';
import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { typedNumber } from '../shell/typed-number';

/** A figure that a calculation asks for; outside of its range it is none of a vehicle. */
export interface AskedFigure {
  readonly title: string;
  readonly unit: string;
  readonly help: string;
  readonly low: number;
  readonly high: number;
  readonly optional?: true;
}

/** What is wrong with a figure as it is typed; null where it can be counted with. */
export function wrongFigure({ low, high, unit, optional }: AskedFigure, text: string): string | null {
  const value = typedNumber(text);
  const range = `${low} to ${high}${unit === '' ? '' : ` ${unit}`}`;
  if (value === undefined) return optional ? null : `A figure, ${range}`;
  return value >= low && value <= high ? null : range;
}

interface Props<Field extends string> {
  readonly fields: Readonly<Partial<Record<Field, AskedFigure>>>;
  readonly texts: Readonly<Record<Field, string>>;
  readonly onChange: (field: Field, text: string) => void;
}

/** Fields of a calculation, each with what is wrong beside it once it was touched. */
export function AskedFigures<Field extends string>({ fields, texts, onChange }: Props<Field>) {
  const [touched, setTouched] = useState<ReadonlySet<Field>>(new Set());
  return (Object.entries(fields) as [Field, AskedFigure][]).map(([field, asked]) => {
    const wrong = wrongFigure(asked, texts[field]);
    const shown = wrong !== null && (touched.has(field) || texts[field].trim() !== '');
    return (
      <TextField
        key={field}
        label={asked.title}
        value={texts[field]}
        required={!asked.optional}
        error={shown}
        helperText={shown ? wrong : asked.help}
        onChange={({ target }) => onChange(field, target.value)}
        onBlur={() => setTouched(new Set([...touched, field]))}
        slotProps={{
          input: { endAdornment: <InputAdornment position="end">{asked.unit}</InputAdornment> },
          htmlInput: { inputMode: 'decimal' },
        }}
      />
    );
  });
}
