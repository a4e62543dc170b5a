import { createTheme, type MantineColorsTuple } from '@mantine/core'

const ember: MantineColorsTuple = [
  '#fff1e6',
  '#fbdcc6',
  '#f6bd95',
  '#f2a064',
  '#f08a3c',
  '#dd6f27',
  '#c8501a',
  '#b5440f',
  '#94370c',
  '#6f2807',
]

/** Mantine in our own colours; the rest is in theme.css. */
export const theme = createTheme({
  colors: { ember },
  primaryColor: 'ember',
  primaryShade: { light: 7, dark: 4 },
  autoContrast: true,
  luminanceThreshold: 0.35,
  fontFamily: "'Figtree', sans-serif",
  headings: { fontFamily: "'Bricolage Grotesque', sans-serif", fontWeight: '700' },
  defaultRadius: 'md',
  respectReducedMotion: true,
})
