'use client';
import { useEffect } from 'react';

/** Says on the document that the page answers now: what the server drew has been taken over by the browser. */
export function Answers() {
  useEffect(() => {
    document.documentElement.dataset.answers = '';
  }, []);
  return null;
}
