'use client';
import Slider from '@mui/material/Slider';
import { liveFigure, referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import { shownAs } from '@/core/quantities/shown-as';
import { leverName } from '@/core/wording/lever-words';
import styles from './bench.module.css';

interface Props {
  /** What it drives: the lever's pressure, the rod's or the pedal's force. */
  readonly channel: string;
  /** SI */
  readonly value: number;
  readonly maximum: number;
  readonly units: DisplayUnits;
  readonly disabled: boolean;
  readonly onPull: (level: number) => void;
}

/** The bench lever: dragged, or moved with the arrow keys. Its scale is the level it asks for. */
export function Lever({ channel, value, maximum, units, disabled, onPull }: Props) {
  const as = shownAs(channel);
  const unit = shownUnit(as, units);
  const name = leverName(channel);
  return (
    <div className={styles.lever}>
      <h2 id="lever-title">{name[0].toUpperCase() + name.slice(1)}</h2>
      <Slider
        orientation="vertical"
        value={Math.min(maximum, value)}
        min={0}
        max={maximum}
        step={maximum / 400}
        shiftStep={maximum / 40}
        disabled={disabled}
        onChange={(_event, next) => onPull(next as number)}
        aria-labelledby="lever-title"
        getAriaValueText={(now) => `${liveFigure(now, unit)} ${unit.symbol} ${referenceOf(as)}`.trim()}
        sx={{
          color: 'var(--palette-tone-ink)',
          width: 12,
          '& .MuiSlider-rail': { opacity: 1, background: 'var(--palette-tone-line)', borderRadius: 0 },
          '& .MuiSlider-track': { border: 0, borderRadius: 0, background: 'var(--palette-tone-softInk)' },
          '& .MuiSlider-thumb': {
            width: 58,
            height: 26,
            borderRadius: '3px',
            background: 'var(--palette-tone-ink)',
            boxShadow: 'none',
            '&:hover, &.Mui-active': { boxShadow: 'none' },
            '&.Mui-focusVisible': {
              boxShadow: 'none',
              outline: '3px solid var(--palette-tone-measured)',
              outlineOffset: '2px',
            },
          },
        }}
      />
      <p>
        {liveFigure(value, unit)} {unit.symbol}
      </p>
    </div>
  );
}
