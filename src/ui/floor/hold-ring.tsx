'use client';
import CircularProgress from '@mui/material/CircularProgress';
import { useEffect, useRef, useState } from 'react';
import styles from './floor.module.css';

interface Props {
  /** What is held, in words. */
  readonly title: string;
  /** Full time of the hold, s. */
  readonly seconds: number;
  /** ISO time by the wall clock. */
  readonly endsAt: string;
  readonly onEnd: () => void;
}

/** Two short tones; silent where the browser does not let a page sound without having been touched. */
function sound(): void {
  try {
    const audio = new AudioContext();
    for (const at of [0, 0.35]) {
      const tone = audio.createOscillator();
      const volume = audio.createGain();
      tone.frequency.value = 880;
      volume.gain.value = 0.2;
      tone.connect(volume).connect(audio.destination);
      tone.start(audio.currentTime + at);
      tone.stop(audio.currentTime + at + 0.2);
    }
  } catch {
    // The ring itself says it; the sound is only for those who look elsewhere.
  }
}

/** A hold that counts down by the wall clock, with a sound at its end. */
export function HoldRing({ title, seconds, endsAt, onEnd }: Props) {
  const [left, setLeft] = useState<number | null>(null);
  const ended = useRef(false);
  useEffect(() => {
    ended.current = false;
    const tick = () => {
      const now = Math.max(0, (Date.parse(endsAt) - Date.now()) / 1000);
      setLeft(now);
      if (now > 0 || ended.current) return;
      ended.current = true;
      sound();
      onEnd();
    };
    const first = setTimeout(tick, 0);
    const timer = setInterval(tick, 250);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [endsAt, onEnd]);
  const share = left === null ? 0 : Math.min(1, left / seconds);
  const whole = Math.ceil(left ?? seconds);
  const shown = whole >= 60 ? `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}` : String(whole);
  return (
    <div className={styles.ring} role="timer" aria-label={`${title}: ${shown} ${whole >= 60 ? 'min' : 's'} left`}>
      <CircularProgress
        variant="determinate"
        value={share * 100}
        size={38}
        thickness={4.4}
        enableTrackSlot
        aria-hidden
      />
      <span className={styles.ringFigure}>{shown}</span>
    </div>
  );
}
