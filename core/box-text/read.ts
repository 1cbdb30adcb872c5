/* eslint-disable @typescript-eslint/no-non-null-assertion -- each kind of part has a score, and what was found has a span */
import type { Kind } from '../parts/kinds.ts';
import { readDrive } from './drive.ts';
import { readEnclosure } from './enclosure.ts';
import { readAlternative, readCable, readHost, readPad } from './others.ts';
import type { Gathered, BoxReading } from './claims.ts';
import { settleClaims } from './settle-claims.ts';
import { inEnglish } from './languages.ts';
import { normalise } from './text.ts';

const READERS: Record<Kind, (text: string) => Gathered> = {
  drive: readDrive,
  enclosure: readEnclosure,
  cable: readCable,
  pad: readPad,
  host: readHost,
  alternative: readAlternative
};

/**
 * Words that speak for a kind: `strong` ones hardly occur elsewhere, `weak` ones are shared. In the title each counts more,
 * for there the thing says what it is.
 */
const SIGNS: Record<Kind, { strong: RegExp; weak: RegExp }> = {
  enclosure: {
    strong:
      /\b(?:enclosure|(?:ssd|external|hdd|nvme|m\.2) case|case for|captive cable|thunderbolt|usb ?[34]|dock(?:ing station)?|caddy|bridge chip|uasp|(?:takes|accepts|holds) [^\n]{0,30}?(?:drives?|disks?|ssds?)|for (?:one |all )?(?:m\.2|nvme|2\.5|3\.5|sata)[^\n]{0,20}?(?:drives?|disks?|ssds?|modules?)?)\b/gi,
    weak: /\b(?:case|housing|shell|body|fan-?less|finned|alumini?um|plastic|tool-? ?(?:free|less)|max\.? (?:capacity|\d)|supports? (?:drives?|ssds?|hdds?|\d)|up to \d+ ?tb|chipset)\b/gi
  },
  drive: {
    strong:
      /\b(?:tbw|nand|tlc|qlc|rpm|endurance|smr|cmr|dram|terabytes written|(?:seq\w*\.? ?)?(?:read|write)s?\b(?=[^\n]{0,24}\d ?[mg]b)|r: ?\d|internal hard)\b/gi,
    weak: /\b(?:ssd|solid state|hdd|hard (?:disk|drive)|nvme|pcie?|sata|warranty|\d ?[tg]b|m\.2)\b/gi
  },
  cable: {
    strong:
      /\b(?:male to|braided|e-mark(?:ed|er)|charg(?:e|ing) (?:cable|lead)|data cable|(?:usb|thunderbolt)[^\n,]{0,12} cable|(?:usb-?|type-?)?[abc] ?(?:to|\/) ?(?:(?:usb-?|type-?)[abc]|(?:usb-?)?micro(?:-?b)?)|cable (?:usb|type)-?[abc])\b/gi,
    weak: /\b(?:cable|lead|length|passive|active|\d+ ?w)\b/gi
  },
  pad: {
    strong: /\b(?:w\/m|shore|conductivity|silicone thermal)/gi,
    weak: /\b(?:thermal pads?|heat pads?|pads?|silicone|thickness)\b/gi
  },
  host: {
    strong:
      /\b(?:laptop|notebook|desktop|workstation|tablet|mini pc|operating system|processor|os:|hdmi|ethernet|headphone)\b|\b\d ?x (?:usb|thunderbolt)/gi,
    weak: /\b(?:ports?|connectors|windows|macos|linux|ipados|front|rear|back)\b/gi
  },
  alternative: {
    strong:
      /\b(?:portable (?:ssd|drive|disk)|external (?:ssd|hard)|flash (?:stick|drive)|usb stick|memory card|sd card|microsd|thumb drive)\b/gi,
    weak: /\b(?:portable|stick|card)\b/gi
  }
};
/** A title that says that the thing is bought complete. */
const READY_MADE =
  /^(?!.*\b(?:enclosure|case)\b).*\b(?:portable ssd|portable drive|external ssd|(?:sd|memory|microsd) card|flash drive|usb stick)\b/i;
const STATED = 12;
const STRONG = 3;
const TITLE = 3;

/** Tells which kind of part a text describes, by its words; `sure` where the runner-up is clearly behind. */
export function kindOf(text: string): { kind: Kind; sure: boolean } {
  const [title = ''] = text.trim().split('\n');
  // A title that runs on is a whole page in one line; what it says last is contents and praise.
  const head = title.slice(0, 60);
  const distinct = (t: string, sign: RegExp) => new Set([...t.matchAll(sign)].map((m) => m[0].toLowerCase())).size;
  const count = (t: string, kind: Kind) =>
    STRONG * distinct(t, SIGNS[kind].strong) + Math.min(6, distinct(t, SIGNS[kind].weak));
  const scores = (Object.keys(SIGNS) as Kind[]).map((kind) => ({
    kind,
    score:
      count(text, kind) + TITLE * count(head, kind) + (kind === 'alternative' && READY_MADE.test(head) ? STATED : 0),
    strong: distinct(text, SIGNS[kind].strong)
  }));
  scores.sort((a, b) => b.score - a.score);
  const [first, second] = [scores[0]!, scores[1]!];
  // Shared words alone do not outweigh a word that only the other kind has.
  return { kind: first.kind, sure: first.score > 1.5 * second.score && (first.strong > 0 || second.strong === 0) };
}

/** The first line that says something, without the labels that pages put before it. */
function nameOf(text: string): string {
  const lines = text.split('\n').map((line) =>
    line
      .trim()
      .replace(/^(?:product|name|model|title)\s*[:=-]\s*/i, '')
      .replace(/[*•]+/g, '')
      .trim()
  );
  const line = lines.find((candidate) => /[A-Za-z]{2}/.test(candidate)) ?? '';
  const short = line
    .slice(0, 400)
    .replace(/\s+/g, ' ')
    .split(/ [|–—-] |, |: |\. /)[0]!
    .trim();
  return short
    .replace(/^new\W+/i, '')
    .replace(/[^\S\n]+/g, ' ')
    .slice(0, 80)
    .trim();
}

/** Longest text that is read: a page of a shop, not a book. */
export const TEXT_LIMIT = 20_000;

/**
 * Reads free text from a box or a page into the fields of a part.
 * @param text what was pasted; more than `TEXT_LIMIT` characters are not looked at
 * @param kind the kind of part where the person has said it; else it is taken from the text
 * @returns every field with the words it came from and whether they are clear; what is open or contradicts itself as questions
 * @example readSpecification('M.2 2280, 2 TB, read 7000 MB/s').kind // 'drive'
 */
export function readSpecification(text: string, kind?: Kind): BoxReading {
  const english = inEnglish(normalise(text.slice(0, TEXT_LIMIT)));
  const guessed = kindOf(english.text);
  const which = kind ?? guessed.kind;
  const { claims, questions } = READERS[which](english.text);
  const settled = settleClaims(
    text,
    claims.map((claim) => ({ ...claim, ...english.spanOf(claim) })),
    questions.map((question) => ({ ...question, spans: question.spans.map(english.spanOf) }))
  );
  return {
    kind: which,
    kindSure: kind !== undefined || guessed.sure,
    name: nameOf(text),
    // Nothing is sure in a text of which it is not sure what it is about.
    found: settled.found
      .map((found) => ({ ...found, sure: found.sure && (kind !== undefined || guessed.sure) }))
      .sort((a, b) => a.spans[0]!.start - b.spans[0]!.start),
    questions: dedupe(settled.questions)
  };
}

/** Several questions about one field are one question with all their answers. */
function dedupe(questions: BoxReading['questions']): BoxReading['questions'] {
  const byPath = new Map<string, BoxReading['questions'][number]>();
  for (const question of questions) {
    const first = byPath.get(question.path);
    if (!first) byPath.set(question.path, { ...question });
    else {
      const known = new Set(first.options.map((o) => JSON.stringify(o.value)));
      first.options = [...first.options, ...question.options.filter((o) => !known.has(JSON.stringify(o.value)))];
      first.spans = [...first.spans, ...question.spans];
    }
  }
  return [...byPath.values()];
}
