import NativeSelect, { type NativeSelectProps } from '@mui/material/NativeSelect';
import OutlinedInput from '@mui/material/OutlinedInput';
import type { ReactNode } from 'react';

interface Props extends Pick<NativeSelectProps, 'className' | 'id'> {
  /** What is chosen, for those who do not see where it stands; without it a label names it by `id`. */
  readonly label?: string;
  readonly describedBy?: string;
  readonly value: string | number;
  readonly onChange: (value: string) => void;
  /** The options, as `option` elements. */
  readonly children: ReactNode;
}

/** A short list to choose from, in a row or in a cell of a table. */
export function Choice({ label, describedBy, value, onChange, children, id, className }: Props) {
  return (
    <NativeSelect
      input={<OutlinedInput size="small" />}
      className={className}
      sx={{
        font: 'inherit',
        fontSize: 14,
        color: 'inherit',
        background: 'none',
        // It stands on light ground and on dark; its list opens on the panel's.
        '& .MuiOutlinedInput-notchedOutline': { borderColor: 'currentColor' },
        '& .MuiNativeSelect-icon': { color: 'inherit' },
        '& option': { color: 'var(--palette-tone-ink)' },
        '& .MuiNativeSelect-select': {
          minHeight: 36,
          boxSizing: 'border-box',
          paddingBlock: '4px',
          paddingInlineStart: '10px',
          fontSize: 'inherit',
        },
      }}
      value={value}
      onChange={(event) => onChange(String(event.target.value))}
      inputProps={{ id, 'aria-label': label, 'aria-describedby': describedBy }}
    >
      {children}
    </NativeSelect>
  );
}
