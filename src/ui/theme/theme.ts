import { createTheme } from '@mui/material/styles'
import type { CSSProperties } from 'react'
import { text, tokens, widths } from './tokens'

declare module '@mui/material/styles' {
  interface TypographyVariants {
    quiet: CSSProperties
    mini: CSSProperties
    figure: CSSProperties
  }
  interface TypographyVariantsOptions {
    quiet?: CSSProperties
    mini?: CSSProperties
    figure?: CSSProperties
  }
  interface Palette {
    severity: Record<'stop' | 'fix' | 'mind' | 'ask', string>
    water: Record<'live' | 'deep' | 'shallow' | 'dry', string>
  }
  interface PaletteOptions {
    severity?: Palette['severity']
    water?: Palette['water']
  }
}

declare module '@mui/material/Typography' {
  interface TypographyPropsVariantOverrides {
    quiet: true
    mini: true
    figure: true
  }
}

const fontFamily = '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif'

/** Limestone and deep water by day; night water in the dark. Contrast is WCAG AA for all text in both. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data' },
  // who asked for less motion does not wait for it either
  motion: { reducedMotion: 'system' },
  colorSchemes: {
    light: {
      palette: {
        background: { default: '#efece3', paper: '#fdfbf5' },
        text: { primary: '#15242a', secondary: '#47575c' },
        primary: { main: '#0b5566', contrastText: '#ffffff' },
        secondary: { main: '#6b4a1f' },
        error: { main: '#a01c2c' },
        divider: '#cbc5b4',
        severity: { stop: '#a01c2c', fix: '#8a4300', mind: '#57418a', ask: '#0b5566' },
        water: { live: '#1b7f95', deep: '#0b5566', shallow: '#cfe6ea', dry: '#d9d3c3' },
      },
    },
    dark: {
      palette: {
        background: { default: '#0d171b', paper: '#152329' },
        text: { primary: '#e8efee', secondary: '#a9babd' },
        primary: { main: '#7fcadb', contrastText: '#08222a' },
        secondary: { main: '#dcb47a' },
        error: { main: '#ff9a9f' },
        divider: '#33474e',
        severity: { stop: '#ff9a9f', fix: '#f3b06b', mind: '#c3b2f2', ask: '#7fcadb' },
        water: { live: '#4ba6ba', deep: '#7fcadb', shallow: '#1d3d46', dry: '#28353a' },
      },
    },
  },
  typography: {
    fontFamily,
    fontSize: 14,
    body1: { fontSize: text.body },
    h1: { fontSize: text.title, fontWeight: 700, letterSpacing: '-0.01em' },
    h2: { fontSize: text.lead, fontWeight: 700 },
    h3: { fontSize: text.body, fontWeight: 700 },
    body2: { fontSize: text.quiet },
    caption: { fontSize: text.small },
    quiet: { fontSize: text.quiet, color: 'var(--mui-palette-text-secondary)' },
    mini: { fontSize: text.mini, color: 'var(--mui-palette-text-secondary)' },
    figure: { fontSize: text.figure, fontWeight: 700, lineHeight: 1.1 },
    button: { textTransform: 'none', fontWeight: 600 },
  },
  shape: { borderRadius: 6 },
  breakpoints: { values: { xs: 0, sm: widths.phone, md: widths.tablet, lg: widths.laptop, xl: 1536 } },
  components: {
    MuiTypography: { defaultProps: { variantMapping: { quiet: 'p', mini: 'span', figure: 'span' } } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          minHeight: 40,
          padding: '4px 12px',
          color: 'inherit',
          textTransform: 'none',
          lineHeight: 1.4,
          '&.Mui-selected': {
            background: 'var(--mui-palette-water-shallow)',
            color: 'inherit',
            fontWeight: 700,
          },
        },
      },
    },
    MuiStack: { defaultProps: { useFlexGap: true } },
    MuiTable: { defaultProps: { size: 'small' } },
    MuiTableCell: {
      styleOverrides: {
        root: {
          padding: '6px 12px 6px 0',
          fontSize: 'inherit',
          lineHeight: 'inherit',
          verticalAlign: 'top',
          borderColor: 'var(--mui-palette-divider)',
          '&:last-child': { paddingRight: 0 },
          'tbody tr:last-child > &': { borderBottom: 0 },
        },
        head: {
          fontSize: text.small,
          fontWeight: 400,
          color: 'var(--mui-palette-text-secondary)',
          verticalAlign: 'bottom',
        },
      },
    },
    MuiLinearProgress: {
      styleOverrides: {
        root: { height: 10, borderRadius: 2, backgroundColor: 'var(--mui-palette-water-dry)' },
        bar: { backgroundColor: 'var(--mui-palette-water-live)' },
      },
    },
    MuiListItemText: { styleOverrides: { root: { marginBlock: 0 } } },
    MuiListSubheader: {
      styleOverrides: {
        root: { padding: '6px 8px 0', lineHeight: 1.6, background: 'none', fontSize: text.small },
      },
    },
    MuiLink: { defaultProps: { color: 'inherit' } },
    MuiFormHelperText: { styleOverrides: { root: { marginInline: 2, whiteSpace: 'pre-line' } } },
    MuiDialogContent: {
      // the label of the first field stands above its frame
      styleOverrides: { root: { paddingTop: '8px !important' } },
    },
    MuiDialogActions: { styleOverrides: { root: { padding: '10px 20px 14px' } } },
    MuiAccordion: { styleOverrides: { root: { background: 'none', '&::before': { display: 'none' } } } },
    MuiAccordionSummary: {
      styleOverrides: {
        root: { minHeight: 40, padding: 0, justifyContent: 'flex-start', fontWeight: 600 },
        content: { flexGrow: 0, margin: '4px 8px 4px 0' },
      },
    },
    MuiAccordionDetails: { styleOverrides: { root: { padding: '0 0 8px' } } },
    MuiAlert: {
      defaultProps: { icon: false, severity: 'info', role: 'note' },
      styleOverrides: {
        root: {
          padding: '4px 12px',
          borderLeft: '4px solid var(--mui-palette-water-live)',
          borderRadius: 0,
          fontSize: 'inherit',
          color: 'inherit',
          background: 'color-mix(in srgb, var(--mui-palette-water-shallow) 60%, transparent)',
          variants: [
            {
              props: { severity: 'warning' },
              style: {
                border: '2px dashed var(--mui-palette-severity-fix)',
                color: 'var(--mui-palette-severity-fix)',
                background: 'none',
                fontWeight: 650,
              },
            },
            {
              props: { severity: 'error' },
              style: {
                borderLeftColor: 'var(--mui-palette-severity-stop)',
                background: 'color-mix(in srgb, var(--mui-palette-severity-stop) 10%, transparent)',
              },
            },
          ],
        },
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: {
          minHeight: 40,
          '&[aria-current]': {
            fontWeight: 700,
            borderRadius: 0,
            boxShadow: 'inset 0 -3px 0 var(--mui-palette-primary-main)',
          },
        },
      },
    },
    MuiIconButton: { styleOverrides: { root: { minWidth: 40, minHeight: 40 } } },
    MuiTextField: { defaultProps: { size: 'small', fullWidth: true } },
    MuiCssBaseline: {
      styleOverrides: {
        ':root': tokens,
        body: { fontVariantNumeric: 'tabular-nums' },
        ':where(h1, h2, h3, h4, p, ul, ol, dl, dd, figure)': { margin: 0 },
        ':where(h1)': { fontSize: text.title, letterSpacing: '-0.01em' },
        ':where(h2)': { fontSize: text.lead },
        ':where(h3, h4)': { fontSize: text.body },
        kbd: {
          padding: '0 6px',
          border: '1px solid var(--mui-palette-divider)',
          borderRadius: 4,
          font: 'inherit',
          fontSize: text.small,
          whiteSpace: 'nowrap',
        },
        // only where nothing else says how a link looks
        ':where(a:not([class]))': { color: 'var(--mui-palette-primary-main)' },
        ':focus-visible': { outline: '3px solid var(--mui-palette-primary-main)', outlineOffset: 2 },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transition: 'none !important', animation: 'none !important' },
        },
      },
    },
  },
})
