import { judgeAnalysis } from './analysis.ts';
import { judgeDiagnosis } from './diagnosis.ts';

/** `npm run judge [seed] [analysis|diagnosis] [--wrong]`: how well series are read and causes are found, as the tables that stand in docs/. */
const words = process.argv.slice(2).filter((word) => !word.startsWith('-'));
const seed = Number(words.find((word) => /^\d+$/.test(word)) ?? Date.now() % 1_000_000);
console.log(`Seed ${seed}\n`);
if (!words.includes('diagnosis')) for (const row of judgeAnalysis(seed)) console.log(row);
if (!words.includes('analysis'))
  for (const row of judgeDiagnosis(seed, process.argv.includes('--wrong'))) console.log(row);
