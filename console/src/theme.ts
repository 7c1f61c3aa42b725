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
});
