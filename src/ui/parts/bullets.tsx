import List from '@mui/material/List';
import type { ReactNode } from 'react';
import styles from './parts.module.css';

/** A short list with a bullet to each line; its children are list items. */
export function Bullets({ children }: { readonly children: ReactNode }) {
  return <List className={styles.bullets}>{children}</List>;
}
