import {
  Button,
  type CSSVariablesResolver,
  createTheme,
  type MantineColorsTuple,
} from '@mantine/core'

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

/** Fields, tracks and what is greyed out by day: the warm side of grey, like the paper. */
const sand: MantineColorsTuple = [
  '#fbf6ef',
  '#f4ece1',
  '#eadfd2',
  '#ddcdbc',
  '#c6b09b',
  '#8f7a69',
  '#75635a',
  '#5c4a44',
  '#43332f',
  '#2a1826',
]

/** From the lightest ink to the deepest ground of the evening theme. */
const plum: MantineColorsTuple = [
  '#f4e6d8',
  '#d5c1c9',
  '#c3adb7',
  '#7d6272',
  '#5a4150',
  '#412c39',
  '#34202d',
  '#1d1119',
  '#180d14',
  '#120910',
]

/** Mantine's own surfaces take our paper, card and line. */
export const resolver: CSSVariablesResolver = () => {
  const surfaces = {
    '--mantine-color-body': 'var(--card)',
    '--mantine-color-text': 'var(--ink)',
    '--mantine-color-default': 'var(--card)',
    '--mantine-color-default-color': 'var(--ink)',
    '--mantine-color-default-border': 'var(--line)',
    '--mantine-color-default-hover': 'color-mix(in srgb, var(--line) 40%, var(--card))',
    '--mantine-color-placeholder': 'var(--quiet)',
    '--mantine-color-dimmed': 'var(--quiet)',
  }
  return { variables: {}, light: surfaces, dark: surfaces }
}

/** Mantine in our own colours; the rest is in theme.css. */
export const theme = createTheme({
  colors: { ember, gray: sand, dark: plum },
  white: '#fffdf9',
  primaryColor: 'ember',
  primaryShade: { light: 7, dark: 4 },
  components: {
    // Written out instead of taken from Modal, Menu and Drawer, which load later.
    Modal: { defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } },
    Drawer: { defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } },
    // A focusable element that is no item has no place in a menu.
    Menu: { defaultProps: { withInitialFocusPlaceholder: false } },
    Button: Button.extend({
      vars: (_, { variant = 'filled' }) => ({
        root:
          variant === 'filled'
            ? { '--button-bg': 'var(--ember)', '--button-color': 'var(--on-ember)' }
            : {},
      }),
    }),
  },
  fontFamily: "'Figtree', sans-serif",
  headings: { fontFamily: "'Bricolage Grotesque', sans-serif", fontWeight: '700' },
  defaultRadius: 'md',
  respectReducedMotion: true,
})
