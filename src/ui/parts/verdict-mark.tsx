import type { StepVerdict, UnitVerdict } from '@/core/vocabulary/verdict';
import { verdictWords } from '@/core/wording/verdict-words';
import styles from './parts.module.css';

export type ShownVerdict = StepVerdict | UnitVerdict;

const tones: Readonly<Record<ShownVerdict, string>> = {
  pass: 'var(--palette-tone-pass)',
  fail: 'var(--palette-tone-fail)',
  undecided: 'var(--palette-tone-undecided)',
  recorded: 'var(--palette-tone-softInk)',
  'not-run': 'var(--palette-tone-softInk)',
  incomplete: 'var(--palette-tone-softInk)',
};

/** The shape of a verdict: disc with tick, diamond with cross, half disc, square, dashed ring. */
export function VerdictShape({ verdict, size = 18 }: { readonly verdict: ShownVerdict; readonly size?: number }) {
  const tone = tones[verdict];
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" aria-hidden="true" className={styles.shape}>
      {verdict === 'pass' && (
        <>
          <circle cx="10" cy="10" r="9" fill={tone} />
          <path d="M5.5 10.4l3 3 6-6.6" fill="none" stroke="var(--palette-tone-panel)" strokeWidth="2.2" />
        </>
      )}
      {verdict === 'fail' && (
        <>
          <path d="M10 0.5L19.5 10 10 19.5 0.5 10z" fill={tone} />
          <path d="M7 7l6 6M13 7l-6 6" stroke="var(--palette-tone-panel)" strokeWidth="2.2" />
        </>
      )}
      {verdict === 'undecided' && (
        <>
          <circle cx="10" cy="10" r="8" fill="none" stroke={tone} strokeWidth="2" />
          <path d="M10 2a8 8 0 0 1 0 16z" fill={tone} />
        </>
      )}
      {verdict === 'recorded' && <rect x="3" y="3" width="14" height="14" fill={tone} />}
      {(verdict === 'not-run' || verdict === 'incomplete') && (
        <circle cx="10" cy="10" r="8" fill="none" stroke={tone} strokeWidth="2" strokeDasharray="3.4 2.9" />
      )}
    </svg>
  );
}

/** Shape and word. */
export function VerdictMark({ verdict }: { readonly verdict: ShownVerdict }) {
  return (
    <span className={styles.verdict} style={{ color: tones[verdict] }}>
      <VerdictShape verdict={verdict} />
      {verdictWords[verdict]}
    </span>
  );
}
