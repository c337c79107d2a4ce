'use client';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import type { ComponentProps } from 'react';
import { theme } from '@/ui/theme/theme';
import { Answers } from './answers';
import { KeyMap } from './key-map';
import { ShopProvider } from './shop-context';

/** Theme, shop and the keys that work everywhere. */
export function Providers({ children, ...shop }: ComponentProps<typeof ShopProvider>) {
  return (
    <ThemeProvider theme={theme} defaultMode="light">
      <CssBaseline />
      <ShopProvider {...shop}>
        <KeyMap />
        {children}
        <Answers />
      </ShopProvider>
    </ThemeProvider>
  );
}
