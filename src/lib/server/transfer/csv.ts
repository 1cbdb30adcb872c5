import Papa from 'papaparse';
import { Problem } from '../problems/problem';

/** Rows as CSV with CRLF and a byte order mark, so that spreadsheets see UTF-8. */
export function toCsv(headings: readonly string[], rows: readonly (readonly string[])[]): string {
  const body = Papa.unparse({ fields: [...headings], data: rows.map((row) => [...row]) });
  return `\ufeff${body}\r\n`;
}

/** The headings and rows of a CSV file, whatever it is separated with.
 *  @throws Problem `bad-input` where there is no heading or a quote never ends */
export function fromCsv(text: string): { headings: string[]; rows: string[][] } {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' });
  const broken = errors.find((error) => error.type === 'Quotes');
  if (broken)
    throw new Problem('bad-input', `A quotation mark in line ${(broken.row ?? 0) + 1} does not end.`, [
      { path: `rows.${broken.row ?? 0}`, message: 'holds a quotation mark that does not end' }
    ]);
  const [headings, ...rows] = data;
  if (!headings || headings.every((heading) => heading.trim() === ''))
    throw new Problem('bad-input', 'The file is empty.', [{ path: 'text', message: 'is empty' }]);
  return { headings, rows };
}
