import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2023', assetsInlineLimit: 0, chunkSizeWarningLimit: 400 },
  css: {
    preprocessorOptions: {
      // Bootstrap 5 is still written with @import and the older colour functions.
      scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
    },
  },
});
