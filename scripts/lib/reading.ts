import { judge } from '../../tests/reading-score.ts';
import { HELD_OUT } from '../../tests/specifications/held-out.ts';
import { TUNING } from '../../tests/specifications/tuning.ts';

/** Prints how well specification texts are read: on the texts it was tuned on, and on those it was not. */
const verbose = process.argv.includes('--wrong');
for (const [name, texts] of [
  ['tuning', TUNING],
  ['held out', HELD_OUT]
] as const) {
  if (verbose && name === 'held out' && !process.argv.includes('--held-out')) continue;
  const verdicts = texts.map((text) => ({ text, verdict: judge(text) }));
  const sum = (of: (v: ReturnType<typeof judge>) => number) => verdicts.reduce((n, { verdict }) => n + of(verdict), 0);
  const [right, stated] = [sum((v) => v.right), sum((v) => v.stated)];
  const sure = sum((v) => v.wrong.filter((w) => w.sure).length);
  console.log(
    `${name}: ${texts.length} texts, ${right} of ${stated} fields right (${((100 * right) / stated).toFixed(1)} %), ${sure} wrong and marked sure`
  );
  if (verbose)
    for (const { text, verdict } of verdicts)
      for (const wrong of verdict.wrong)
        console.log(
          `  ${text.name}: ${wrong.path} wanted ${JSON.stringify(wrong.wanted)} got ${JSON.stringify(wrong.got)}${wrong.sure ? '  SURE' : ''}`
        );
}
