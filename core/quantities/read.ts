/* eslint-disable @typescript-eslint/no-non-null-assertion -- the pattern matches the empty text too; an index inside the text; one reading at least is left */
/**
 * The tolerant reader: what a person types from a box or a screen, read into the unit a field is kept in.
 * It returns the value, or says what it thinks was meant; it never guesses silently.
 */

/** Every unit that is understood: its dimension, and how many base units it is. Base units: B/s, B, m, °C, W, s, g. */
const UNITS = {
  'kb/s': ['rate', 1e3 / 8],
  'Mb/s': ['rate', 1e6 / 8],
  'Gb/s': ['rate', 1e9 / 8],
  'B/s': ['rate', 1],
  'kB/s': ['rate', 1e3],
  'MB/s': ['rate', 1e6],
  'GB/s': ['rate', 1e9],
  'KiB/s': ['rate', 2 ** 10],
  'MiB/s': ['rate', 2 ** 20],
  'GiB/s': ['rate', 2 ** 30],
  B: ['capacity', 1],
  kB: ['capacity', 1e3],
  MB: ['capacity', 1e6],
  GB: ['capacity', 1e9],
  TB: ['capacity', 1e12],
  KiB: ['capacity', 2 ** 10],
  MiB: ['capacity', 2 ** 20],
  GiB: ['capacity', 2 ** 30],
  TiB: ['capacity', 2 ** 40],
  TBW: ['endurance', 1],
  PBW: ['endurance', 1000],
  µm: ['length', 1e-6],
  mm: ['length', 1e-3],
  cm: ['length', 1e-2],
  m: ['length', 1],
  in: ['length', 0.0254],
  ft: ['length', 0.3048],
  '°C': ['temperature', 1],
  '°F': ['temperature', 5 / 9],
  mW: ['power', 1e-3],
  W: ['power', 1],
  ms: ['time', 1e-3],
  s: ['time', 1],
  min: ['time', 60],
  h: ['time', 3600],
  g: ['mass', 1],
  kg: ['mass', 1000],
  'cm²': ['area', 1],
  'mm²': ['area', 0.01],
  'W/mK': ['conductivity', 1],
  rpm: ['turning', 1],
  years: ['age', 1],
  '%': ['share', 1],
  '': ['count', 1]
} as const satisfies Record<string, readonly [string, number]>;

export type UnitName = keyof typeof UNITS;

/** Spellings with exact case first (MB is not Mb), then spellings for which case says nothing. */
const EXACT: Record<string, UnitName> = {
  Gbps: 'Gb/s',
  'Gbit/s': 'Gb/s',
  Gb: 'Gb/s',
  Mbps: 'Mb/s',
  'Mbit/s': 'Mb/s',
  Mb: 'Mb/s',
  GBps: 'GB/s',
  MBps: 'MB/s',
  kBps: 'kB/s',
  KB: 'kB',
  'KB/s': 'kB/s',
  'MB/sec': 'MB/s',
  'GB/sec': 'GB/s',
  C: '°C',
  F: '°F',
  um: 'µm',
  μm: 'µm',
  '"': 'in',
  S: 's',
  w: 'W'
};
const ANY_CASE: Record<string, UnitName> = {
  gigabit: 'Gb/s',
  gigabits: 'Gb/s',
  'gbit/s': 'Gb/s',
  megabit: 'Mb/s',
  megabits: 'Mb/s',
  'mbit/s': 'Mb/s',
  megabytes: 'MB',
  'megabytes/s': 'MB/s',
  gigabytes: 'GB',
  terabytes: 'TB',
  tb: 'TB',
  tib: 'TiB',
  gib: 'GiB',
  'mib/s': 'MiB/s',
  'gib/s': 'GiB/s',
  tbw: 'TBW',
  pbw: 'PBW',
  mm: 'mm',
  millimetre: 'mm',
  millimetres: 'mm',
  cm: 'cm',
  metre: 'm',
  metres: 'm',
  inch: 'in',
  inches: 'in',
  sec: 's',
  seconds: 's',
  minutes: 'min',
  hours: 'h',
  watt: 'W',
  watts: 'W',
  'w/mk': 'W/mK',
  'w/m·k': 'W/mK',
  'w/(m·k)': 'W/mK',
  'w/(mk)': 'W/mK',
  cm2: 'cm²',
  mm2: 'mm²',
  'cm²': 'cm²',
  rpm: 'rpm',
  year: 'years',
  years: 'years',
  yr: 'years',
  gram: 'g',
  grams: 'g'
};

export type Suggestion = { text: string; value: number };
export type ParsedQuantity =
  | { ok: true; value: number }
  | {
      ok: false;
      problem: 'empty' | 'not-a-number' | 'unit-unknown' | 'wrong-dimension' | 'ambiguous' | 'out-of-range';
      message: string;
      suggestions: Suggestion[];
    };

/** What a field expects: the unit it is kept in, and the range in which a value is believable for it. */
export type Expectation = { unit: UnitName; min?: number; max?: number };

const clean = (value: number) => Number(value.toPrecision(12));
const plain = (value: number) => String(Number(value.toPrecision(6)));
const withUnit = (value: number, unit: UnitName) => (unit ? `${plain(value)} ${unit}` : plain(value));

const refuse = (
  problem: Extract<ParsedQuantity, { ok: false }>['problem'],
  message: string,
  suggestions: Suggestion[] = []
): ParsedQuantity => ({ ok: false, problem, message, suggestions });

/** Groups of three digits after the first, one and the same sign between them: `1 000 000`, `1'000`. */
const GROUPED = /^([+-]?)\s*(\d{1,3})([\s'’_])\d{3}(?:\3\d{3})*(?=$|[.,e])/i;
/** A number that has both signs: groups of three by the one, the other for the decimals. */
const BOTH_SIGNS = {
  ',': /^[+-]?\d{1,3}(\.\d{3})+,\d*(e[+-]?\d+)?$/i,
  '.': /^[+-]?\d{1,3}(,\d{3})+\.\d*(e[+-]?\d+)?$/i
};

const one = (text: string): number[] => (/^[+-]?(\d+(?:\.\d*)?|\.\d+)(e[+-]?\d+)?$/i.test(text) ? [Number(text)] : []);

/** Reads a number with commas and no point: several group thousands, one is the decimal sign or, before three digits, either. */
function withCommas(compact: string, commas: number): number[] {
  if (commas > 1) return /^[+-]?\d{1,3}(,\d{3})+$/.test(compact) ? one(compact.replaceAll(',', '')) : [];
  if (/^[+-]?[1-9]\d{0,2},\d{3}$/.test(compact))
    return [Number(compact.replace(',', '.')), Number(compact.replace(',', ''))];
  return one(compact.replace(',', '.'));
}

/**
 * Reads the number part. Decimal comma and point; thin and ordinary spaces, apostrophes and underscores between groups of three
 * digits, and nowhere else: `10 20` and `5'6` are no numbers.
 * `1,200` alone may be 1.2 or 1200: both readings come back.
 */
function readNumber(text: string): number[] {
  const spaced = text.trim().replace(/^([+-])\s+/, '$1');
  if (/[\s'’_]/.test(spaced) && /[\s'’_]/.test(spaced.replace(GROUPED, ''))) return [];
  const compact = spaced.replace(/[\s'’_]/g, '');
  if (!/^[+-]?[\d.,]+(e[+-]?\d+)?$/i.test(compact)) return [];
  const commas = compact.split(',').length - 1;
  const points = compact.split('.').length - 1;
  if (commas === 0)
    return points > 1 && /^[+-]?\d{1,3}(\.\d{3})+$/.test(compact) ? one(compact.replaceAll('.', '')) : one(compact);
  if (points === 0) return withCommas(compact, commas);
  // Both signs: the last one is the decimal sign, the other groups thousands.
  const decimalIsComma = compact.lastIndexOf(',') > compact.lastIndexOf('.');
  const [group, decimal] = decimalIsComma ? (['.', ','] as const) : ([',', '.'] as const);
  if (!BOTH_SIGNS[decimal].test(compact)) return [];
  return one(compact.replaceAll(group, '').replace(decimal, '.'));
}

function readUnit(text: string): UnitName | undefined {
  const spelled = text
    .trim()
    .replace(/\s+/g, '')
    .replace(/per(sec(ond)?|s)$/i, '/s');
  if (Object.hasOwn(UNITS, spelled)) return spelled as UnitName;
  if (Object.hasOwn(EXACT, spelled)) return EXACT[spelled];
  const folded = spelled.toLowerCase();
  return Object.hasOwn(ANY_CASE, folded) ? ANY_CASE[folded] : undefined;
}

/** Gives the unit that a spelling stands for, if it measures the same as `like`: `Gbps` for `MB/s`, but not `GB`. */
export function unitLike(text: string, like: UnitName): UnitName | undefined {
  const unit = readUnit(text);
  return unit !== undefined && unit !== '' && UNITS[unit][0] === UNITS[like][0] ? unit : undefined;
}

/** Takes a temperature for one of the other scale: the number stays, and nobody means a thousandth of a temperature. */
function onOtherScale(value: number, unit: UnitName, typed: UnitName): Suggestion {
  const other: UnitName = typed === '°F' ? '°C' : '°F';
  const number = convert(value, unit, typed);
  return { text: withUnit(number, other), value: convert(number, other, unit) };
}

/** The unit that is confused with another where a value is eight times too much or too little. */
const BIT_TWIN: Partial<Record<UnitName, UnitName>> = { 'GB/s': 'Gb/s', 'MB/s': 'Mb/s' };
const BYTE_TWIN: Partial<Record<UnitName, UnitName>> = { 'Gb/s': 'GB/s', 'Mb/s': 'MB/s' };

/** Finds numbers that people mean when a value cannot be right: bits for bytes, a thousand too much or too little. */
// eslint-disable-next-line complexity -- one line for each slip that people make
function likelyMeant(value: number, expected: Expectation, typed: UnitName): Suggestion[] {
  const { unit, min = 0, max = Infinity } = expected;
  const fits = (v: number) => v >= min && v <= max;
  if (UNITS[unit][0] === 'temperature') {
    const meant = onOtherScale(value, unit, typed);
    return fits(meant.value) ? [meant] : [];
  }
  const isRate = UNITS[unit][0] === 'rate';
  const factors = isRate ? [1 / 8, 8, 1 / 1000, 1000] : [1 / 1000, 1000];
  const found: Suggestion[] = [];
  for (const factor of factors) {
    const meant = clean(value * factor);
    if (!fits(meant)) continue;
    // 40 GB/s for a 40 Gb/s link: say it in the unit that was confused, not in a converted one.
    const twin = factor === 1 / 8 ? BIT_TWIN[typed] : factor === 8 ? BYTE_TWIN[typed] : undefined;
    const inTwin = twin ? convert(meant, unit, twin) : meant;
    const suggestion = { text: withUnit(inTwin, twin ?? unit), value: meant };
    // The same number with the other unit is the commonest slip by far; where it fits, nothing else is guessed.
    if (twin) return [suggestion];
    found.push(suggestion);
  }
  return found;
}

/** Gives one unit into another of the same dimension. Temperatures are points on a scale, not differences. */
export function convert(value: number, from: UnitName, to: UnitName): number {
  if (from === to) return value;
  const celsius = from === '°F' ? ((value - 32) * 5) / 9 : value;
  if (UNITS[from][0] === 'temperature') return clean(to === '°F' ? (celsius * 9) / 5 + 32 : celsius);
  return clean((value * UNITS[from][1]) / UNITS[to][1]);
}

/** Nobody types a longer number; what is longer is something that was pasted into the wrong field. */
const LONGEST = 80;
const clip = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text);

/** What stands before a unit: the longest beginning that ends in a digit, with a last sign and an exponent; in one pass. */
function splitNumber(text: string): { number: string; rest: string } | undefined {
  const run = /^[+-]?[\d.,\s\u00a0\u202f'’_]*/.exec(text)![0];
  let end = run.length;
  while (end > 0 && !/\d/.test(run[end - 1]!)) end--;
  if (end === 0) return undefined;
  if (text[end] === '.' || text[end] === ',') end++;
  end += /^e[+-]?\d+/i.exec(text.slice(end))?.[0].length ?? 0;
  return { number: text.slice(0, end), rest: text.slice(end).trim() };
}

/** What a field wants, in words: “Type the number alone”, or the number with its unit. */
const wantedIn = (unit: UnitName): string => (unit ? `this field is in ${unit}` : 'type the number alone');

/** Finds the unit of a typed text, or says why it is none for this field. */
function readTypedUnit(unitText: string, numbers: readonly number[], { unit }: Expectation): UnitName | ParsedQuantity {
  const typed = unitText === '' ? unit : readUnit(unitText);
  if (typed === undefined)
    return refuse('unit-unknown', `“${unitText}” is no unit that is known here; ${wantedIn(unit)}.`);
  const wanted = UNITS[unit][0];
  if (UNITS[typed][0] === wanted) return typed;
  // 10 Gb or 950 MB typed for a rate: the "per second" was left out.
  const asRate = wanted === 'rate' ? readUnit(`${unitText}/s`) : undefined;
  const suggestions = asRate
    ? numbers.map((n) => ({ text: `${plain(n)} ${asRate}`, value: convert(n, asRate, unit) }))
    : [];
  return refuse(
    'wrong-dimension',
    unit
      ? `“${unitText}” is no ${wanted}; ${wantedIn(unit)}.`
      : `“${unitText}” does not belong here; ${wantedIn(unit)}.`,
    suggestions
  );
}

/** Holds a number in its typed unit against the range of its field. */
function inRange(number: number, typed: UnitName, expected: Expectation): ParsedQuantity {
  const { unit, min = -Infinity, max = Infinity } = expected;
  const value = convert(number, typed, unit);
  if (Number.isFinite(value) && value >= min && value <= max) return { ok: true, value };
  const range = value < min ? `less than ${withUnit(min, unit)}` : `more than ${withUnit(max, unit)}`;
  const suggestions = likelyMeant(value, expected, typed);
  const asked = suggestions.length > 0 ? ` Was ${suggestions.map((s) => s.text).join(' or ')} meant?` : '';
  return refuse('out-of-range', `${withUnit(number, typed)} is ${range}.${asked}`, suggestions);
}

/**
 * Reads a typed quantity into the unit of its field.
 * @param text what was typed: `10 Gb/s`, `10Gbps`, `1,2 GB/s`, `3.64 TiB`, `0.5 mm`; without a unit, the field's own is meant
 * @returns the value in `expected.unit`; or the problem in one sentence, with what was probably meant
 * @example readQuantity('1,2 GB/s', { unit: 'MB/s' }) // { ok: true, value: 1200 }
 */
export function readQuantity(text: string, expected: Expectation): ParsedQuantity {
  const trimmed = text.trim();
  if (trimmed === '') return refuse('empty', 'Nothing was typed.');
  const parts = trimmed.length > LONGEST ? undefined : splitNumber(trimmed);
  const numbers = parts ? readNumber(parts.number) : [];
  if (!parts || numbers.length === 0) {
    const such = expected.unit ? `, such as 10 ${expected.unit}` : '';
    return refuse('not-a-number', `“${clip(trimmed)}” does not begin with a number${such}.`);
  }
  const typed = readTypedUnit(parts.rest, numbers, expected);
  if (typeof typed !== 'string') return typed;
  if (numbers.length > 1)
    return refuse(
      'ambiguous',
      `“${parts.number.trim()}” can be read in two ways.`,
      numbers.map((n) => ({ text: withUnit(n, typed), value: convert(n, typed, expected.unit) }))
    );
  return inRange(numbers[0]!, typed, expected);
}
