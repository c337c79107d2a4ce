import { createTheme } from '@mui/material/styles';
import { day, dim, type Tokens } from '@/charts/tokens';
import { textFace } from '@/charts/faces';

function palette(tokens: Tokens) {
  return {
    primary: { main: tokens.action, dark: '#E3B324', contrastText: tokens.actionInk },
    text: { primary: tokens.ink, secondary: tokens.softInk },
    background: { default: tokens.ground, paper: tokens.panel },
    divider: tokens.line,
    error: { main: tokens.fail },
  };
}

/** The look of the product as an MUI theme: ruled, flat, three-pixel corners, no shadows, no capitals. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-mode' },
  colorSchemes: { light: { palette: palette(day) }, dark: { palette: palette(dim) } },
  shape: { borderRadius: 3 },
  typography: {
    fontFamily: textFace,
    fontSize: 15,
    button: { textTransform: 'none', fontWeight: 650, fontSize: 16, letterSpacing: 0 },
  },
  transitions: {
    duration: {
      shortest: 80,
      shorter: 100,
      short: 120,
      standard: 140,
      complex: 140,
      enteringScreen: 120,
      leavingScreen: 100,
    },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        ':root, [data-mode="light"]': Object.fromEntries(cssPairs(day)),
        '[data-mode="dark"]': Object.fromEntries(cssPairs(dim)),
        body: { background: 'var(--ground)', color: 'var(--ink)', fontSize: 15, lineHeight: 1.4 },
        // Room that a notice along the bottom edge takes from what fills the window.
        'body:has([data-notice])': { '--notice': '48px' },
        '@media (max-width: 800px)': { 'body:has([data-notice])': { '--notice': '76px' } },
        'h1, h2, h3, p, ul, ol, dl, dd': { margin: 0 },
        a: { color: 'inherit' },
        ':focus-visible': { outline: '3px solid var(--measured)', outlineOffset: '2px' },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transition: 'none !important', animation: 'none !important' },
        },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, variant: 'outlined', color: 'inherit' },
      styleOverrides: {
        root: {
          minHeight: 44,
          paddingInline: 18,
          borderRadius: 3,
          gap: 10,
          '&.Mui-focusVisible': { outline: '3px solid var(--measured)', outlineOffset: 2 },
        },
        outlined: { borderColor: 'currentColor', borderWidth: 1 },
      },
    },
    MuiPaper: {
      defaultProps: { elevation: 0 },
      styleOverrides: { root: { backgroundImage: 'none', border: '1px solid var(--line)' } },
    },
    MuiTextField: { defaultProps: { fullWidth: true, size: 'small' } },
    MuiInputLabel: {
      defaultProps: { shrink: true },
      styleOverrides: { root: { color: 'var(--soft-ink)', '&.Mui-focused': { color: 'var(--ink)' } } },
    },
    MuiOutlinedInput: {
      defaultProps: { notched: true },
      styleOverrides: {
        root: {
          background: 'var(--panel)',
          '& .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--soft-ink)' },
          '&.Mui-focused .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--ink)', borderWidth: 2 },
        },
        input: { fontSize: 16 },
      },
    },
    MuiFormHelperText: {
      styleOverrides: {
        root: { fontSize: 13, marginInline: 2, color: 'var(--soft-ink)', '&.Mui-error': { color: 'var(--fail)' } },
      },
    },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          textTransform: 'none',
          minHeight: 44,
          paddingInline: 14,
          color: 'var(--ink)',
          borderColor: 'var(--soft-ink)',
          fontSize: 15,
          '&.Mui-selected, &.Mui-selected:hover': { background: 'var(--ink)', color: 'var(--panel)' },
        },
      },
    },
  },
});

function cssPairs(tokens: Tokens): [string, string][] {
  return Object.entries(tokens).map(([name, value]) => [
    `--${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`,
    String(value),
  ]);
}
