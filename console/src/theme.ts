import { createTheme } from '@mantine/core';

/** Calm: grey and one ink, lines instead of shadows. Color is kept for the fit. */
export const theme = createTheme({
  fontFamily: 'system-ui, "Segoe UI", "DejaVu Sans", sans-serif',
  fontFamilyMonospace: 'ui-monospace, "Cascadia Mono", "DejaVu Sans Mono", monospace',
  fontSizes: { sm: '13px', md: '14px' },
  primaryColor: 'dark',
  primaryShade: { light: 7, dark: 3 },
  autoContrast: true,
  defaultRadius: 'sm',
  respectReducedMotion: true,
  components: {
    // the head of a dialog is no banner of the page, and its close button has a name
    Modal: { defaultProps: { closeButtonProps: { 'aria-label': 'Close' }, transitionProps: { duration: 0 } } },
    ModalHeader: { defaultProps: { role: 'presentation' } },
  },
});
