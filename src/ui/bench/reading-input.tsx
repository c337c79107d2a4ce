import Button from '@mui/material/Button';
import type { KeyboardEvent } from 'react';
import { shownUnit, type DisplayUnits } from '@/core/wording/display';
import { Choice } from '@/ui/parts/choice';
import { asked, problemText } from './reading-words';
import type { TypedRow } from './use-typed-readings';
import styles from './bench.module.css';

interface Props {
  readonly row: TypedRow;
  readonly units: DisplayUnits;
  /** Named by its cell's headings where no label stands beside it. */
  readonly label?: string;
  readonly hold: (element: HTMLInputElement | null) => void;
  readonly type: (text: string) => void;
  readonly onEnter: () => void;
}

/** Where one reading is typed, or chosen in words. */
export function ReadingInput({ row, units, label, hold, type, onEnter }: Props) {
  const { field } = row;
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    onEnter();
  };
  if (field.choices && field.row)
    return (
      <div className={styles.options} role="radiogroup" aria-label={label} onKeyDown={onKeyDown}>
        {field.choices.map((title, at) => (
          <label key={title}>
            <input
              type="radio"
              ref={at === 0 ? hold : undefined}
              name={`reading-${field.id}`}
              checked={row.text === String(at)}
              onChange={() => type(String(at))}
            />
            {title}
          </label>
        ))}
      </div>
    );
  if (field.choices)
    return (
      <Choice
        id={`reading-${field.id}`}
        {...(label ? { label } : {})}
        className={styles.choice}
        value={row.text}
        describedBy={`said-${field.id}`}
        onChange={type}
      >
        <option value="">choose</option>
        {field.choices.map((title, at) => (
          <option key={title} value={String(at)}>
            {title}
          </option>
        ))}
      </Choice>
    );
  return (
    <input
      id={`reading-${field.id}`}
      ref={hold}
      value={row.text}
      aria-label={label}
      autoComplete="off"
      inputMode="decimal"
      placeholder={shownUnit(field.as, units).symbol}
      maxLength={60}
      aria-describedby={`said-${field.id}`}
      aria-invalid={problemText(row) !== '' || row.questioned || asked(row)}
      onChange={(event) => type(event.target.value)}
      onKeyDown={onKeyDown}
    />
  );
}

/** What a figure is asked about, once, beside its field. */
export function ReadingQuestion({
  row: { read, questioned },
  type,
  confirm,
}: {
  readonly row: TypedRow;
  readonly type: (text: string) => void;
  readonly confirm: () => void;
}) {
  if (read.kind === 'figure' && read.either)
    return (
      <>
        {read.either.map((text) => (
          <Button key={text} size="small" className={styles.answer} onClick={() => type(text)}>
            it is {text.trim()}
          </Button>
        ))}
      </>
    );
  return questioned ? (
    <Button size="small" className={styles.answer} onClick={confirm}>
      it is so
    </Button>
  ) : null;
}
