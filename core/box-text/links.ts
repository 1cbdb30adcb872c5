/* eslint-disable @typescript-eslint/no-non-null-assertion -- the groups named here take part in every match of their pattern; each mode and rate has its row in the tables */
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import type { Claim, Gathered, OpenQuestion, Span } from './claims.ts';
import { numbersIn } from './text.ts';

/**
 * Names of link modes as boxes print them. The standards renamed one speed several times, so a name is a set of modes: one
 * mode is clear, several are a question unless a rate beside it decides. Longer names stand before their beginnings.
 */
const NAMES: readonly [pattern: string, modes: LinkMode[]][] = [
  ['(?:thunderbolt|tbt?) ?5', ['tbt5-80g']],
  ['(?:thunderbolt|tbt?) ?4', ['tbt4-40g']],
  ['(?:thunderbolt|tbt?) ?3', ['tbt3-40g']],
  ['thunderbolt(?! ?[0-9])', ['tbt3-40g', 'tbt4-40g', 'tbt5-80g']],
  ['usb ?4 ?(?:v(?:ersion)? ?2(?:\\.0)?|2\\.0 version|gen ?4)', ['tbt5-80g']],
  ['usb ?4(?:\\.0)? ?gen ?3 ?x ?2', ['usb4-40g']],
  ['usb ?4(?:\\.0)? ?gen ?2 ?x ?2', ['usb4-20g']],
  ['usb ?4(?:\\.0)?(?![.\\d])', ['usb4-40g', 'usb4-20g']],
  ['(?:usb(?:-c)? ?)?3\\.[12] ?gen\\.? ?2 ?x ?2', ['usb-20g']],
  ['(?:usb(?:-c)? ?)?3\\.[12] ?gen\\.? ?1 ?x ?2', ['usb-10g']],
  ['(?:usb(?:-c)? ?)?3\\.[12] ?gen\\.? ?2(?: ?x ?1)?(?!\\d)', ['usb-10g']],
  ['(?:usb(?:-c)? ?)?3\\.[12] ?gen\\.? ?1(?: ?x ?1)?(?!\\d)', ['usb-5g']],
  ['usb(?:-c)? ?3\\.2', ['usb-5g', 'usb-10g', 'usb-20g']],
  ['usb(?:-c)? ?3\\.1', ['usb-5g', 'usb-10g']],
  ['usb(?:-c)? ?3\\.0', ['usb-5g']],
  ['usb(?:-c)? ?3(?![.\\d])', ['usb-5g', 'usb-10g', 'usb-20g']],
  ['usb(?:-c)? ?2(?:\\.0)?(?![.\\d])', ['usb2']],
  ['hi-?speed usb', ['usb2']],
  ['superspeed usb(?! ?\\d)', ['usb-5g']],
  ['e-?sata', ['esata-3g', 'esata-6g']]
];
const NAME = new RegExp(NAMES.map(([pattern]) => `(?<![\\w.])(${pattern})`).join('|'), 'gid');

/** A rate that stands by itself: `10 Gb/s`, `40Gbps`, `480 Mbps`; and the same written in bytes by mistake. */
const RATE =
  /(?<![\d.,])(\d+(?:[.,]\d+)?) ?(?:(g|m)(?:b(?:it)?s?) ?(?:\/ ?s(?:ec)?|ps)|(g|m)(?:b(?:yte)?s?) ?(?:\/ ?s(?:ec)?|ps)|gbe?\b(?!\/))(?![a-z])/gi;
const LINE_RATES: Record<number, LinkMode[]> = {
  0.48: ['usb2'],
  5: ['usb-5g'],
  10: ['usb-10g'],
  20: ['usb-20g', 'usb4-20g'],
  40: ['usb4-40g', 'tbt4-40g', 'tbt3-40g'],
  80: ['tbt5-80g']
};

/** What an eSATA port carries; elsewhere these are rates of SATA inside a case. */
const ESATA_RATES: Readonly<Record<number, LinkMode>> = { 3: 'esata-3g', 6: 'esata-6g' };

const modesOfRate = (gbps: number): readonly LinkMode[] =>
  LINE_RATES[gbps] ?? (ESATA_RATES[gbps] ? [ESATA_RATES[gbps]] : []);

type Named = Span & { modes: LinkMode[]; compatible: boolean };
type Rated = Span & { gbps: number; bytes: boolean; compatible: boolean };
export type StatedLinks = { named: Named[]; rated: Rated[]; spans: Span[] };

/** Words that put what follows below the main link: what it falls back to, or works with. */
const FALLBACK =
  /\b(?:compatible|works? with|backwards?|downward|fall(?:s|ing)? ?back|also (?:runs|works)|supports?|and|plus)\b[^.;\n]*$/i;
/** A rate that belongs to something else than the link to the host. */
const ELSEWHERE = /\b(?:sata|display|hdmi|power|pcie|read|write|seq\w*|transfer of files)\b[^,;\n]{0,14}$/i;

/** What stands before a match on its own line. */
const beforeIn = (text: string, start: number): string => text.slice(text.lastIndexOf('\n', start) + 1, start);

/** Finds the names of links. */
function namesIn(text: string): Named[] {
  const named: Named[] = [];
  for (const match of text.matchAll(NAME)) {
    const which = match.slice(1).findIndex((group) => group !== undefined);
    const start = match.index;
    const before = beforeIn(text, start);
    // "SATA 3.0" names no USB mode.
    if (!/usb|thunderbolt|tb|speed|sata/i.test(match[0]) && /sata ?$/i.test(before)) continue;
    if (/(?:does not|doesn't|not|no)\b[^.;\n]{0,20}$/i.test(before)) continue;
    named.push({ start, end: start + match[0].length, modes: NAMES[which]![1], compatible: FALLBACK.test(before) });
  }
  return named;
}

/** Tells whether a rate is printed in bytes: by the case of the b, and only where the text has both cases. */
const inBytes = (unit: string): boolean =>
  (/B/.test(unit) && !/b/.test(unit) && unit !== unit.toUpperCase()) || /^[GM]B\/[sS]/.test(unit);

/** Finds bare line rates. */
function ratesIn(text: string): Rated[] {
  const rated: Rated[] = [];
  for (const match of text.matchAll(RATE)) {
    const unit = match[0].replace(/^[\d.,\s]+/, '');
    const bytes = inBytes(unit);
    const gbps = numbersIn(match[1]!)[0]! * (/^m/i.test(unit) ? 1e-3 : 1);
    const start = match.index;
    const before = beforeIn(text, start);
    if (
      !(gbps in LINE_RATES || (gbps in ESATA_RATES && /e-?sata\b[^.;\n]*$/i.test(before))) ||
      (ELSEWHERE.test(before) && !/transfer rate/i.test(before))
    )
      continue;
    if (bytes && gbps === 5 && /read|write|les|schreib/i.test(before + text.slice(start, start + 40))) continue;
    rated.push({ start, end: start + match[0].length, gbps, bytes, compatible: FALLBACK.test(before) });
  }
  return rated;
}

/** Finds every link name and every bare line rate in a text. */
export function linksIn(text: string): StatedLinks {
  const [named, rated] = [namesIn(text), ratesIn(text)];
  return { named, rated, spans: [...named, ...rated] };
}

const gbpsOf = (mode: LinkMode) => LINK_MODES[mode].lineGbps;
const byRank = (modes: Iterable<LinkMode>) =>
  [...new Set(modes)].sort((a, b) => LINK_MODES[b].rank - LINK_MODES[a].rank || a.localeCompare(b));
const wordsOf = (text: string, spans: readonly Span[]) =>
  [...new Set(spans.map(({ start, end }) => text.slice(start, end).trim()))].join(', ');

/** Names of links sorted by whether a rate settles what they mean: clear modes, and names that stand for several. */
type Sorted = { clear: Set<LinkMode>; open: Named[]; inBits: ReadonlySet<number> };

/** Settles names that stand for several modes by the rate beside them, or by a rate anywhere in the text. */
function sortNames(text: string, { named, rated }: StatedLinks): Sorted {
  const inBits = new Set(rated.filter((r) => !r.bytes).map((r) => r.gbps));
  const clear = new Set<LinkMode>();
  const open: Named[] = [];
  for (const name of named) {
    const beside = rated.find(
      (r) => !r.bytes && r.start >= name.end && r.start - name.end < 14 && !/[\n,;]/.test(text.slice(name.end, r.start))
    );
    const fitting = name.modes.filter((mode) => (beside ? gbpsOf(mode) === beside.gbps : inBits.has(gbpsOf(mode))));
    if (name.modes.length === 1) clear.add(name.modes[0]!);
    else if (fitting.length === 1) clear.add(fitting[0]!);
    else open.push(fitting.length > 1 ? { ...name, modes: fitting } : name);
  }
  // "USB4" beside a clear USB4 mode says nothing new.
  return { clear, open: open.filter((name) => !name.modes.some((mode) => clear.has(mode))), inBits };
}

/** What has to be asked of the modes: why, and the lists to choose from. */
type Doubt = { why: string; options: LinkMode[][] } | undefined;

/** A rate in bytes: links are rated in bits. */
function bytesDoubt(text: string, { rated }: StatedLinks, { clear, open }: Sorted): Doubt {
  const slip = rated.find((r) => r.bytes);
  if (!slip) return undefined;
  const meant = open.flatMap((name) => name.modes).filter((mode) => gbpsOf(mode) === slip.gbps);
  return {
    why: `${text.slice(slip.start, slip.end).trim()} would be bytes; links are rated in bits. Probably ${slip.gbps} Gb/s is meant.`,
    options: (meant.length > 0 ? meant : modesOfRate(slip.gbps)).map((mode) => [...clear, mode])
  };
}

/** A name that stands for several speeds, and no rate that says which. */
function nameDoubt(text: string, { clear, open }: Sorted): Doubt {
  const [name, ...more] = open;
  if (!name) return undefined;
  const rest = more.flatMap((n) => n.modes.slice(0, 1));
  return {
    why: `“${text.slice(name.start, name.end).trim()}” alone can mean several speeds.`,
    options: [...name.modes.map((mode) => [...clear, ...rest, mode]), [...clear]]
  };
}

/** A rate that no name covers. */
function uncoveredDoubt({ clear, inBits }: Sorted): Doubt {
  const uncovered = [...inBits].filter((gbps) => ![...clear].some((mode) => gbpsOf(mode) === gbps));
  if (clear.size === 0 || uncovered.length === 0) return undefined;
  const names = byRank(clear).map((m) => LINK_MODES[m].label);
  return {
    why: `The text names ${names.join(', ')} and also ${uncovered.join(', ')} Gb/s.`,
    options: [[...clear], ...modesAt(uncovered)]
  };
}

/** Rates alone, which several modes have. */
function rateDoubt({ clear, inBits }: Sorted): Doubt {
  if (clear.size > 0) return undefined;
  const rates = [...inBits].sort((a, b) => a - b);
  const options = modesAt([...inBits]);
  if (rates.length > 1) return { why: `The text names ${rates.join(' and ')} Gb/s.`, options };
  return options.length > 1 ? { why: `${rates[0]} Gb/s is the rate of several link modes.`, options } : undefined;
}

/** Two plain USB speeds that are not said to be fallbacks. */
function fallbackDoubt({ named }: StatedLinks, { clear }: Sorted): Doubt {
  const plain = byRank(
    named
      .filter((name) => !name.compatible && name.modes.length === 1 && LINK_MODES[name.modes[0]!].carrier === 'usb3')
      .map((name) => name.modes[0]!)
  );
  return plain.length > 1
    ? {
        why: 'The text gives two USB speeds and does not say that one is a fallback.',
        options: [...plain.map((mode) => [mode]), [...clear]]
      }
    : undefined;
}

const modesAt = (rates: readonly number[]): LinkMode[][] =>
  rates.flatMap((gbps) => modesOfRate(gbps).map((mode) => [mode]));

/**
 * Reads modes from names and rates. A name that stands for several modes is settled by a rate in the same text; a rate that no
 * name covers, a rate in bytes, and two plain USB speeds that are not said to be fallbacks are asked.
 */
export function modesFrom(text: string, links: StatedLinks, path: string): Gathered {
  if (links.named.length === 0 && links.rated.length === 0) return { claims: [], questions: [] };
  const spans = links.spans.map(({ start, end }) => ({ start, end }));
  const sorted = sortNames(text, links);
  const doubt =
    bytesDoubt(text, links, sorted) ??
    nameDoubt(text, sorted) ??
    uncoveredDoubt(sorted) ??
    rateDoubt(sorted) ??
    fallbackDoubt(links, sorted);
  if (!doubt) {
    const value = sorted.clear.size > 0 ? byRank(sorted.clear) : modesAt([...sorted.inBits])[0]!;
    return { claims: claimsOf(value, path, spans, true), questions: [] };
  }
  const distinct = doubt.options
    .map(byRank)
    .filter((o, i, all) => all.findIndex((p) => p.join() === o.join()) === i && o.length > 0);
  const words = wordsOf(text, spans);
  const question: OpenQuestion = {
    path,
    why: doubt.why,
    options: distinct.map((value) => ({ value, words })),
    spans
  };
  return { claims: [], questions: [question] };
}

const claimsOf = (value: LinkMode[], path: string, spans: readonly Span[], sure: boolean): Claim[] =>
  spans.map(({ start, end }) => ({ path, value, start, end, sure }));
