import { judgeAnalysis } from './analysis.ts';

/** `npm run judge [seed]`: how well series are read and causes are found, as the tables that stand in docs/. */
const [seed = String(Date.now() % 1_000_000)] = process.argv.slice(2);
console.log(`Seed ${seed}\n`);
for (const row of judgeAnalysis(Number(seed))) console.log(row);
