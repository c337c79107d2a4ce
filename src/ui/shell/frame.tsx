'use client';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import type { ReactNode } from 'react';
import { Going } from './going';
import styles from './shell.module.css';

const places: readonly { readonly href: string; readonly title: string }[] = [
  { href: '/', title: 'Floor' },
  { href: '/sheets', title: 'Sheets' },
  { href: '/instruments', title: 'Instruments' },
  { href: '/spheres', title: 'Spheres' },
  { href: '/wiring', title: 'Wiring' },
  { href: '/bore', title: 'Bore' },
];

/** Rail and page. The Bench stands without it. */
export function Frame({ children }: { readonly children: ReactNode }) {
  const path = usePathname();
  const current = (href: string) => (href === '/' ? path === '/' : path.startsWith(href));
  const link = ({ href, title }: { href: string; title: string }) => (
    <Link key={href} href={href} aria-current={current(href) ? 'page' : undefined}>
      {title}
      <Going />
    </Link>
  );
  return (
    <div className={styles.frame}>
      <nav className={styles.rail} aria-label="Places">
        {places.map(link)}
        <div className={styles.bottom}>{link({ href: '/settings', title: 'Settings' })}</div>
      </nav>
      <main className={styles.main}>{children}</main>
    </div>
  );
}

interface HeadProps {
  readonly title: string;
  readonly children?: ReactNode;
  readonly actions?: ReactNode;
}

/** Title of a page with what stands beside it. */
export function PageHead({ title, children, actions }: HeadProps) {
  return (
    <header className={styles.pageHead}>
      <h1>{title}</h1>
      {children}
      <div className={styles.spring} />
      {actions}
    </header>
  );
}
