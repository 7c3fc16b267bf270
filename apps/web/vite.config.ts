import purgecss from '@fullhuman/postcss-purgecss';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** Classes that no source file spells out: made from a verdict or a trust, or set by React-Bootstrap and the router. */
const MADE_UP = [/^v-/u, /^trust-/u, /^modal/u, /^btn-close/u, /^(show|fade|active)$/u, /^dsg-/u, /^(finding|diff|keeping)-/u];

/** Variables of the table grid, which its own stylesheet asks for and ours sets. */
const TABLE_GRID = [/^--dsg-/u];

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2023', assetsInlineLimit: 0, chunkSizeWarningLimit: 400 },
  css: {
    postcss: {
      plugins: [
        purgecss({
          content: ['index.html', 'src/**/*.tsx'],
          safelist: { standard: MADE_UP, variables: TABLE_GRID },
          dynamicAttributes: ['data-bs-theme'],
          variables: true,
        }),
      ],
    },
    preprocessorOptions: {
      // Bootstrap 5 is still written with @import and the older colour functions.
      scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
    },
  },
});
