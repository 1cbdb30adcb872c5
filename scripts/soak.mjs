import { runTypeScript, setUp } from './setup.mjs';

setUp();
await runTypeScript('./lib/endurance/soak.ts');
