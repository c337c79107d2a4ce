import Button, { type ButtonProps } from '@mui/material/Button';
import { useEffect, useRef, type RefObject } from 'react';

interface Props extends ButtonProps {
  /** Whether the primary action has the focus: it passes from one primary button to the next. */
  readonly focusedRef: RefObject<boolean>;
}

/** The one action that goes on. When it takes the place of another that had the focus, it has it too. */
export function PrimaryButton({ focusedRef, ...props }: Props) {
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (focusedRef.current) button.current?.focus();
  }, [focusedRef]);
  return (
    <Button
      {...props}
      ref={button}
      onFocus={() => {
        focusedRef.current = true;
      }}
      onBlur={({ relatedTarget }) => {
        // A button that is taken away loses the focus to nothing.
        if (relatedTarget) focusedRef.current = false;
      }}
    />
  );
}
