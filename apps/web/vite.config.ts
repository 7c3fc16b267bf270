import purgecss from '@fullhuman/postcss-purgecss';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { makeFonts } from './make-fonts.ts';

/** Classes that no source file spells out: made from a verdict or a trust, or set by React-Bootstrap and the router. */
const MADE_UP = [
  /^v-/u,
  /^trust-/u,
  /^modal/u,
  /^btn/u,
  /^table$/u,
  /^form-(?:control|select|label|check)/u,
  /^input-group/u,
  /^dropdown/u,
  /^is-invalid$/u,
  /^spinner-border/u,
  /^(?:toast|progress)/u,
  /^(?:nav|offcanvas|tab|collaps)/u,
  /^(show|fade|active)$/u,
  /^(?:dsg|cm)-/u,
  /^(finding|diff|keeping)-/u,
];

/** Variables that another stylesheet asks for than the one that sets them: the table grid's, and those of dialogs, tabs, menus and keys. */
const ASKED_ELSEWHERE = [
  /^--dsg-/u,
  /^--(?:key-)?bar$/u,
  /^--bs-border-(?:radius-lg|color-translucent)$/u,
  /^--bs-(?:link-(?:hover-)?|tertiary-)color$/u,
  /^--bs-btn-/u,
  /^--bs-(?:body-bg-rgb|box-shadow)$/u,
];

await makeFonts(new URL('fonts/', import.meta.url).pathname);

export default defineConfig({
  plugins: [react(), offline()],
  server: { proxy: { '/api': process.env['JUBB_API'] ?? 'http://127.0.0.1:4170' } },
  build: {
    target: 'es2023',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 500,
    // What the first screen needs comes in one piece: thirty small ones are packed less well, each by itself.
    rolldownOptions: { output: { codeSplitting: { groups: [{ name: firstScreen }] } } },
  },
  css: {
    postcss: {
      plugins: [
        purgecss({
          content: ['index.html', 'src/**/*.tsx'],
          safelist: { standard: MADE_UP, variables: ASKED_ELSEWHERE },
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

interface Modules {
  getModuleInfo(id: string): { readonly isEntry: boolean; readonly importers: readonly string[] } | null;
}

/** The piece of a module that the page begins with, whatever else shares it; what only a later page asks for is no part of it. */
function firstScreen(id: string, modules: Modules): string | null {
  const known = reached.get(id);
  if (known !== undefined) return known ? 'first' : null;
  // A circle is no way in by itself; out of a collection only what is used comes, wherever it is used.
  reached.set(id, false);
  if (COLLECTIONS.test(id)) return null;
  const info = modules.getModuleInfo(id);
  const isFirst = info !== null && (info.isEntry || info.importers.some((one) => firstScreen(one, modules) !== null));
  reached.set(id, isFirst);
  return isFirst ? 'first' : null;
}
const reached = new Map<string, boolean>();
const COLLECTIONS = /\/packages\/|\/node_modules\/(?:lucide-react|d3-[a-z]+|date-fns|class-validator|class-transformer)\//u;

/** The application opens with no network: its own files are kept on the device, and the last answers for reading. */
function offline(): ReturnType<typeof VitePWA> {
  return VitePWA({
    registerType: 'autoUpdate',
    injectRegister: 'script-defer',
    manifest: {
      name: 'Jubb',
      short_name: 'Jubb',
      description: 'The bench book of a rebuild shop',
      display: 'standalone',
      theme_color: '#efece4',
      background_color: '#efece4',
      icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' }],
    },
    workbox: {
      clientsClaim: true,
      skipWaiting: true,
      globPatterns: ['**/*.{html,js,css,svg,woff2}'],
      navigateFallback: '/index.html',
      navigateFallbackDenylist: [/^\/api\//u],
      runtimeCaching: [
        {
          // What a page reads while one works at a job; without a link it is as it was the last time.
          urlPattern: /\/api\/v1\/(?:session|health|today|tools|customers|sheets|jobs)(?:[/?]|$)/u,
          method: 'GET',
          handler: 'NetworkFirst',
          options: { cacheName: 'jubb-read', networkTimeoutSeconds: 5, expiration: { maxEntries: 300 } },
        },
        {
          // A photo or clip is named by its content: what was seen once is seen without a link too.
          urlPattern: /\/api\/v1\/files\/[0-9a-f]{64}$/u,
          method: 'GET',
          handler: 'CacheFirst',
          options: { cacheName: 'jubb-files', expiration: { maxEntries: 300 } },
        },
      ],
    },
  });
}
