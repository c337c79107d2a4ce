'use client';
import { type ReactNode, use } from 'react';
import { familyComing, familyIds } from '@/core/families/at-hand';

interface Props {
  /** Family that the page is about; every one where it may be about any. */
  readonly of: string | 'any';
  readonly children: ReactNode;
}

/**
 * What is about a family, once that family is here: a browser fetches only those that its pages are about. Until it has come
 * what the server drew stays on the screen.
 */
export function FamilyAtHand({ of, children }: Props) {
  const waited = (of === 'any' ? familyIds : [of]).map(familyComing);
  for (const coming of waited) if (coming) use(coming);
  return children;
}
