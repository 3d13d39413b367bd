/** The look of Mantine's components: flat, hairlined, indigo for the main action. */
import { createTheme, type MantineColorsTuple } from '@mantine/core';

const indigo: MantineColorsTuple = [
  '#eef0f7',
  '#d9deec',
  '#b3bdd9',
  '#8b99c4',
  '#697ab2',
  '#5266a5',
  '#31437a',
  '#2b3b6c',
  '#24325c',
  '#1b2647',
];

export const theme = createTheme({
  respectReducedMotion: true,
  fontFamily: "'Commissioner Variable', sans-serif",
  headings: { fontFamily: "'Fraunces Variable', serif" },
  primaryColor: 'indigo',
  primaryShade: { light: 6, dark: 5 },
  colors: { indigo },
  defaultRadius: 3,
  fontSizes: { xs: '12px', sm: '13px', md: '14px', lg: '16px', xl: '20px' },
  cursorType: 'pointer',
  components: {
    Button: {
      defaultProps: { size: 'xs', variant: 'default', fz: 13, fw: 500 },
      styles: { root: { height: 28, paddingInline: 11 } },
    },
    ActionIcon: { defaultProps: { variant: 'subtle', color: 'var(--ink)', size: 30 } },
    Tooltip: { defaultProps: { openDelay: 500, color: 'var(--ink)', c: 'var(--linen)' } },
    Modal: {
      defaultProps: {
        centered: true,
        // The keyboard has Esc and Cancel; the first field is where it begins.
        closeButtonProps: { 'aria-label': 'Close', tabIndex: -1 },
      },
    },
    // The first item is where the keyboard begins.
    Menu: { defaultProps: { withInitialFocusPlaceholder: false } },
    ColorInput: {
      defaultProps: { eyeDropperButtonProps: { 'aria-label': 'Pick a colour on the screen' } },
    },
    SegmentedControl: { defaultProps: { size: 'xs' } },
  },
});
