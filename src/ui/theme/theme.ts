import { createTheme } from '@mui/material/styles';
import { day, dim, type Tokens } from '@/charts/tokens';
import { textFace } from '@/charts/faces';

declare module '@mui/material/styles' {
  interface Palette {
    /** Colours of the product, `--palette-tone-…` on every page. */
    tone: Tokens;
  }
  interface PaletteOptions {
    tone?: Tokens;
  }
}

function palette(tokens: Tokens) {
  return {
    tone: tokens,
    primary: { main: tokens.action, dark: '#E3B324', contrastText: tokens.actionInk },
    text: { primary: tokens.ink, secondary: tokens.softInk },
    background: { default: tokens.ground, paper: tokens.panel },
    divider: tokens.line,
    error: { main: tokens.fail },
  };
}

/** The look of the product as an MUI theme: ruled, flat, three-pixel corners, no shadows, no capitals. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-mode', cssVarPrefix: '' },
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
    MuiAlert: {
      defaultProps: { icon: false },
      styleOverrides: {
        root: {
          color: 'var(--palette-tone-ink)',
          background: 'var(--palette-tone-panel)',
          border: 0,
          borderInlineStart: '4px solid var(--palette-tone-ink)',
          marginBottom: 12,
          alignItems: 'center',
        },
        action: { gap: 8, paddingBlock: 4, alignItems: 'center', flexShrink: 0 },
      },
    },
    MuiCssBaseline: {
      styleOverrides: {
        body: {
          background: 'var(--palette-tone-ground)',
          color: 'var(--palette-tone-ink)',
          fontSize: 15,
          lineHeight: 1.4,
        },
        // Room that a notice along the bottom edge takes from what fills the window.
        'body:has([data-notice])': { '--notice': '48px' },
        '@media (max-width: 800px)': { 'body:has([data-notice])': { '--notice': '76px' } },
        'h1, h2, h3, p, ul, ol, dl, dd': { margin: 0 },
        a: { color: 'inherit' },
        ':focus-visible': { outline: '3px solid var(--palette-tone-measured)', outlineOffset: '2px' },
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
          '&.Mui-focusVisible': { outline: '3px solid var(--palette-tone-measured)', outlineOffset: 2 },
        },
        sizeSmall: { minHeight: 36, paddingBlock: 4, paddingInline: 10, gap: 8, fontSize: 14, fontWeight: 400 },
        text: {
          textDecoration: 'underline',
          paddingInline: 0,
          '&:hover': { textDecoration: 'underline', background: 'none' },
        },
        outlined: { borderColor: 'currentColor', borderWidth: 1 },
      },
    },
    MuiPaper: {
      defaultProps: { elevation: 0 },
      styleOverrides: { root: { backgroundImage: 'none', border: '1px solid var(--palette-tone-line)' } },
    },
    MuiTextField: { defaultProps: { fullWidth: true, size: 'small' } },
    MuiInputLabel: {
      defaultProps: { shrink: true },
      styleOverrides: {
        root: { color: 'var(--palette-tone-softInk)', '&.Mui-focused': { color: 'var(--palette-tone-ink)' } },
      },
    },
    MuiOutlinedInput: {
      defaultProps: { notched: true },
      styleOverrides: {
        root: {
          background: 'var(--palette-tone-panel)',
          '& .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--palette-tone-softInk)' },
          '&.Mui-focused .MuiOutlinedInput-notchedOutline': { borderColor: 'var(--palette-tone-ink)', borderWidth: 2 },
        },
        input: { fontSize: 16 },
      },
    },
    MuiFormHelperText: {
      styleOverrides: {
        root: {
          fontSize: 13,
          marginInline: 2,
          color: 'var(--palette-tone-softInk)',
          '&.Mui-error': { color: 'var(--palette-tone-fail)' },
        },
      },
    },
    MuiTable: { styleOverrides: { root: { fontSize: 'inherit' } } },
    MuiTableCell: {
      styleOverrides: {
        root: {
          padding: '8px 14px',
          borderBottom: '1px solid var(--palette-tone-line)',
          color: 'inherit',
          font: 'inherit',
          lineHeight: 'inherit',
          fontWeight: 400,
          '& small': { display: 'block', color: 'var(--palette-tone-softInk)', fontSize: 13 },
        },
        head: { color: 'var(--palette-tone-softInk)', fontSize: 14, fontWeight: 400, lineHeight: 'inherit' },
      },
    },
    MuiList: { defaultProps: { disablePadding: true } },
    MuiListItem: {
      defaultProps: { disablePadding: true, disableGutters: true },
      styleOverrides: { root: { display: 'list-item', width: 'auto' } },
    },
    MuiSwitch: {
      styleOverrides: {
        switchBase: { color: 'var(--palette-tone-ink)', '&.Mui-checked': { color: 'var(--palette-tone-ink)' } },
        thumb: { borderRadius: 3, boxShadow: 'none', background: 'currentColor' },
        track: {
          borderRadius: 3,
          opacity: 1,
          background: 'var(--palette-tone-line)',
          '.Mui-checked.Mui-checked + &': { background: 'var(--palette-tone-bandEdge)', opacity: 1 },
        },
      },
    },
    MuiTabs: { styleOverrides: { indicator: { height: 3, background: 'var(--palette-tone-ink)' } } },
    MuiTab: {
      styleOverrides: {
        root: {
          minHeight: 44,
          minWidth: 0,
          padding: '11px 6px',
          fontSize: 15,
          fontWeight: 400,
          lineHeight: 1.4,
          opacity: 1,
          color: 'var(--palette-tone-ink)',
          textTransform: 'none',
          letterSpacing: 0,
          '&.Mui-selected': { color: 'var(--palette-tone-ink)', fontWeight: 700 },
          '&.Mui-focusVisible': { outline: '3px solid var(--palette-tone-measured)', outlineOffset: -3 },
        },
      },
    },
    MuiLinearProgress: {
      styleOverrides: {
        root: { height: 6, background: 'var(--palette-tone-line)' },
        bar: { background: 'var(--palette-tone-ink)' },
      },
    },
    MuiCircularProgress: {
      styleOverrides: {
        root: { color: 'var(--palette-tone-ink)' },
        track: { opacity: 1, color: 'var(--palette-tone-line)' },
      },
    },
  },
});
