import { runTypeScript, setUp } from './setup.mjs';

setUp({ browser: true });
await runTypeScript('./lib/bench-pages.ts');
