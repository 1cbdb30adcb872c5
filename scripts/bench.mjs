import { runTypeScript, setUp } from './setup.mjs';

setUp();
await runTypeScript('../bench/plan.ts');
