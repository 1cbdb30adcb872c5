/** Odd kinds of text, made to a length by a seed: what a person never types and a pattern may choke on. */
export function oddTexts(seed: number): { name: string; make: (length: number) => string }[] {
  const repeat = (unit: string, end = '') => ({
    name: JSON.stringify(unit) + (end ? ` then ${JSON.stringify(end)}` : ''),
    make: (length: number) => unit.repeat(Math.ceil(length / unit.length)).slice(0, length - end.length) + end
  });
  return [
    ...[
      'a',
      '1',
      ' ',
      '0',
      '-',
      '.',
      ',',
      '=',
      '\t',
      '\n',
      '\r\n',
      '(',
      '[',
      '{',
      '"',
      "'",
      '\\',
      '/',
      '_',
      '\u200b',
      '\u0301',
      'é',
      '石',
      '🪨'
    ].flatMap((unit) => [repeat(unit), repeat(unit, '\n'), repeat(unit, 'x'), repeat(unit, 'b,')]),
    ...[
      '1,',
      '1.',
      '1 ',
      '1e',
      '12:30 ',
      '2 mm ',
      '1 x ',
      'a,b;',
      '[1],',
      '{"a":',
      '7,100 MB/s ',
      'usb 3.2 gen 2 ',
      'not without no ',
      '- - ',
      '1 to 2 to ',
      'D-001, ',
      '&lt;',
      '%00',
      '../',
      "' or '1'='1"
    ].flatMap((unit) => [repeat(unit), repeat(unit, 'x\ny')]),
    ...Array.from({ length: 6 }, (_, i) => ({
      name: `words by seed ${seed + i}`,
      make: (length: number) => randomWords(seed + i, length)
    }))
  ];
}

const WORDS = [
  'usb',
  'type-c',
  'pcie',
  '4',
  'x4',
  '2',
  'mm',
  'x',
  '2280',
  'GB',
  'TB/s',
  'up to',
  'no',
  'pads',
  '1.5',
  '7,000',
  ',',
  ';',
  '.',
  '\n',
  '-',
  'W',
  'thunderbolt',
  'case for',
  'read',
  'write',
  'of',
  'gb/s',
  '(',
  ')',
  '  '
];

function randomWords(seed: number, length: number): string {
  let state = seed >>> 0;
  const words: string[] = [];
  for (let size = 0; size < length;) {
    // a linear congruence is enough: no two seeds need be independent
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    const word = WORDS[state % WORDS.length]!;
    words.push(word);
    size += word.length + 1;
  }
  return words.join(' ').slice(0, length);
}
