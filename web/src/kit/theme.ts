import { createTheme } from '@mui/material/styles';

/** Paper, enamel, fruit: every colour of the interface, once, by day and by night. */
interface Shade {
  main: string;
  tint: string;
}
/** Bands of a balance, by what flows in them. */
export interface FlowShades {
  produce: string;
  water: string;
  salt: string;
  acid: string;
  sweetener: string;
  other: string;
}
declare module '@mui/material/styles' {
  interface Palette {
    rule: { main: string; strong: string };
    live: Shade & { fill: string };
    leaf: Shade;
    ox: Shade;
    aub: Shade;
    fruit: { main: string };
    flow: FlowShades;
  }
  interface PaletteOptions {
    rule: { main: string; strong: string };
    live: Shade & { fill: string };
    leaf: Shade;
    ox: Shade;
    aub: Shade;
    fruit: { main: string };
    flow: FlowShades;
  }
  interface TypographyVariants {
    figure: React.CSSProperties;
  }
}

export const DAY = {
  primary: { main: '#4B1E3F', contrastText: '#FFFDF8' },
  error: { main: '#9E2B1B' },
  success: { main: '#35622F' },
  warning: { main: '#A34A14' },
  background: { default: '#FAF4E8', paper: '#FFFDF8' },
  text: { primary: '#2A211D', secondary: '#6A5B50' },
  divider: '#E4D8C4',
  rule: { main: '#E4D8C4', strong: '#B3A084' },
  aub: { main: '#4B1E3F', tint: '#F3E8F0' },
  live: { main: '#A34A14', fill: '#E9923F', tint: '#FCEBD8' },
  leaf: { main: '#35622F', tint: '#E5EFDF' },
  ox: { main: '#9E2B1B', tint: '#F8E2DC' },
  fruit: { main: '#E0913B' },
  flow: {
    produce: '#B9CC9C',
    water: '#C3D5DC',
    salt: '#B3BABF',
    acid: '#EAD48F',
    sweetener: '#E9CDB4',
    other: '#D3BFCB',
  },
};

export const NIGHT: typeof DAY = {
  primary: { main: '#E2B3D3', contrastText: '#2A1524' },
  error: { main: '#F0917F' },
  success: { main: '#A0CC96' },
  warning: { main: '#F5AE6B' },
  background: { default: '#17110F', paper: '#221A18' },
  text: { primary: '#F4EADF', secondary: '#C2B0A3' },
  divider: '#3B2F2B',
  rule: { main: '#3B2F2B', strong: '#6B5950' },
  aub: { main: '#E2B3D3', tint: '#3A2433' },
  live: { main: '#F5AE6B', fill: '#E9923F', tint: '#3B2818' },
  leaf: { main: '#A0CC96', tint: '#22301F' },
  ox: { main: '#F0917F', tint: '#3D1F1A' },
  fruit: { main: '#E0913B' },
  flow: {
    produce: '#4C6338',
    water: '#3C5560',
    salt: '#5C656B',
    acid: '#73622B',
    sweetener: '#6E4F37',
    other: '#5B4553',
  },
};

export const TEXT_FACE = "'Atkinson Hyperlegible Next Variable', sans-serif";
export const HEADING_FACE = "'Fraunces Variable', serif";
const heading = { fontFamily: HEADING_FACE, fontWeight: 560, letterSpacing: '-0.01em', lineHeight: 1.15 };

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-theme' },
  colorSchemes: { light: { palette: DAY }, dark: { palette: NIGHT } },
  shape: { borderRadius: 4 },
  typography: {
    fontFamily: TEXT_FACE,
    fontSize: 14.5,
    h1: { ...heading, fontSize: '2rem' },
    h2: { ...heading, fontSize: '1.3rem' },
    h3: { ...heading, fontSize: '1.1rem' },
    button: { textTransform: 'none', fontWeight: 650, fontSize: '1rem' },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { fontFeatureSettings: "'tnum' 1", minHeight: '100dvh' },
        '.frac': { whiteSpace: 'nowrap' },
        '.frac sup, .frac sub': {
          fontSize: '0.66em',
          lineHeight: 0,
          position: 'relative',
          verticalAlign: 'baseline',
        },
        '.frac sup': { top: '-0.42em' },
        '.frac sub': { bottom: '-0.08em' },
        '@media (prefers-reduced-motion: reduce)': {
          '*, *::before, *::after': { animation: 'none !important', transition: 'none !important' },
        },
        '@media print': { '.no-print': { display: 'none !important' } },
      },
    },
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: {
        root: ({ theme: t }) => ({
          fontFamily: 'inherit',
          '&.Mui-focusVisible': { outline: `3px solid ${(t.vars ?? t).palette.live.fill}`, outlineOffset: 2 },
        }),
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: { borderRadius: 28, minHeight: 44, paddingInline: 20, lineHeight: 1.2 },
        sizeLarge: { minHeight: 56, fontSize: '1.1rem', paddingInline: 26 },
        sizeSmall: { minHeight: 34, fontSize: '0.9rem', paddingInline: 14 },
        outlined: ({ theme: t }) => ({
          borderColor: (t.vars ?? t).palette.rule.strong,
          borderWidth: 1.5,
          color: (t.vars ?? t).palette.text.primary,
        }),
      },
    },
    MuiToggleButton: {
      styleOverrides: {
        root: ({ theme: t }) => ({
          '&.Mui-selected, &.Mui-selected:hover': {
            backgroundColor: (t.vars ?? t).palette.aub.tint,
            color: (t.vars ?? t).palette.primary.main,
            fontWeight: 700,
          },
        }),
      },
    },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiTextField: { defaultProps: { size: 'small', fullWidth: true } },
    MuiOutlinedInput: {
      styleOverrides: {
        notchedOutline: ({ theme: t }) => ({ borderColor: (t.vars ?? t).palette.rule.strong }),
        root: ({ theme: t }) => ({ backgroundColor: (t.vars ?? t).palette.background.paper }),
      },
    },
    MuiInputLabel: {
      styleOverrides: { root: ({ theme: t }) => ({ color: (t.vars ?? t).palette.text.secondary }) },
    },
    MuiTableCell: {
      styleOverrides: {
        root: ({ theme: t }) => ({
          padding: '9px 10px 9px 0',
          borderColor: (t.vars ?? t).palette.rule.main,
          // First lines stand level, whatever is in a cell: a figure, a button, two lines.
          verticalAlign: 'baseline',
          fontSize: '0.97rem',
        }),
        head: ({ theme: t }) => ({
          fontWeight: 500,
          fontSize: '0.88rem',
          color: (t.vars ?? t).palette.text.secondary,
          borderColor: (t.vars ?? t).palette.rule.strong,
          paddingTop: 2,
          lineHeight: 1.3,
        }),
      },
    },
    MuiTableSortLabel: {
      styleOverrides: {
        root: { verticalAlign: 'baseline', alignItems: 'baseline' },
        icon: { alignSelf: 'center' },
      },
    },
    MuiLink: { defaultProps: { underline: 'always' }, styleOverrides: { root: { textUnderlineOffset: 3 } } },
    MuiDialog: {
      styleOverrides: {
        paper: ({ theme: t }) => ({ backgroundColor: (t.vars ?? t).palette.background.paper }),
      },
    },
  },
});
