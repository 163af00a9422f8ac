import 'vuetify/styles/core';

import { createVuetify } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';

/** Warm paper and ink; see product.md, section 3. */
export default createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: 'day',
    themes: {
      day: {
        dark: false,
        colors: {
          background: '#E9E3D6',
          surface: '#FBF7EF',
          'on-background': '#22303C',
          'on-surface': '#22303C',
          primary: '#B8452E',
          'on-primary': '#FFFFFF',
          ink: '#22303C',
          'on-ink': '#FFFFFF',
          secondary: '#1D6A83',
          success: '#3F7355',
          warning: '#C98A1B',
          error: '#9E331F',
        },
      },
    },
  },
  defaults: {
    global: { ripple: false },
    VBtn: { variant: 'text', rounded: 'pill', class: 'btn' },
    VDialog: { width: 'auto' },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VCombobox: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VAutocomplete: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
  },
});
