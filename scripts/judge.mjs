import { runTypeScript, setUp } from './setup.mjs';

setUp();
await runTypeScript('../bench/judge/judge.ts');
