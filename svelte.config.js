import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  compilerOptions: { runes: undefined },
  kit: {
    adapter: adapter({ out: 'build', precompress: true }),
    // Small styles come with the page instead of in files of their own.
    inlineStyleThreshold: 6000,
    // Where a request comes from is checked in hooks.server.ts, for every method and type.
    csrf: { trustedOrigins: ['*'] },
    // Everything this page may load comes from this server.
    csp: {
      mode: 'auto',
      directives: {
        'default-src': ['self'],
        'img-src': ['self', 'data:', 'blob:'],
        'style-src': ['self', 'unsafe-inline'],
        'font-src': ['self', 'data:'],
        'object-src': ['none'],
        'base-uri': ['none'],
        'form-action': ['self'],
        'frame-ancestors': ['none']
      }
    }
  }
};
