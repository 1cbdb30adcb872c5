/* eslint-disable @typescript-eslint/no-non-null-assertion -- the groups named here take part in every match of their pattern */
import type { Claim, Gathered, OpenQuestion, Span } from './claims.ts';
import { linksIn, modesFrom } from './links.ts';
import { LENGTH_M, metres, plugsIn } from './plugs-and-lengths.ts';
import type { Clause } from './text.ts';

/** A clause that holds nothing but a measure belongs to the one before it: `cable USB-C to USB-A, 1.2 m`. */
function withTheirMeasures(clauses: readonly Clause[]): Clause[] {
  const joined: Clause[] = [];
  for (const clause of clauses) {
    const last = joined.at(-1);
    const measure = /^[\s(]*[\d.,]+ ?(?:mm|cm|m|ft|gb\/s|gbps)\b[\s).]*$/i.test(clause.text);
    if (last && measure && last.line.start === clause.line.start)
      joined[joined.length - 1] = { ...last, end: clause.end, text: `${last.text} ${clause.text}` };
    else joined.push(clause);
  }
  return joined;
}

/** Reads a cable that lies in the box; undefined where the clause says nothing of it. Ends that are not named are the usual ones. */
function boxedCable(clause: string, ownPlug: string | undefined): object | undefined {
  const plugs = plugsIn(clause).map((p) => p.plug);
  const [lengthM] = [...clause.matchAll(LENGTH_M)].map((m) => metres(m[1]!, m[2]!));
  const modes = modesFrom(clause, linksIn(clause), 'modes').claims[0]?.value as string[] | undefined;
  if (plugs.length === 0 && lengthM === undefined && !modes) return undefined;
  const first = plugs[0] ?? 'usb-c';
  const toC = plugs.length === 0 || /usb[- ]?c cable/i.test(clause);
  const second = plugs[1] ?? (toC ? 'usb-c' : (ownPlug ?? first));
  return { ends: [first, second], ...(lengthM === undefined ? {} : { lengthM }), ...(modes ? { modes } : {}) };
}

/** Reads the pads that lie in the box: "2 x 1.0 mm" are two pads; "100 x 100 x 1 mm" is a size. */
function boxedPads(clause: string): object[] {
  const counted = clause.replace(/(?<!x ?)\b[1-9] ?x(?= ?[\d.,]+ ?mm)/gi, (m) => ' '.repeat(m.length));
  const thick = [...counted.matchAll(/(?<![\d.,]|x ?)(\d+(?:[.,]\d+)?) ?mm\b/gi)]
    .map((m) => Number(m[1]!.replace(',', '.')))
    .filter((t) => t >= 0.2 && t <= 6);
  const size = /(\d{1,4}) ?x ?(\d{1,4})(?: ?x ?[\d.]{1,6})? ?mm/i.exec(clause);
  return thick.map((thicknessMm) => ({
    thicknessMm,
    ...(size ? { widthMm: Number(size[1]), lengthMm: Number(size[2]) } : {})
  }));
}

const NAMES_CABLE = /\bcables?\b/i;
const NO_LOOSE_CABLE = /\b(?:captive|fixed|not included|without|no) [^,;]{0,12}cable|cable not/i;
const NAMES_PAD = /\bpads?\b/i;
const OTHER_PAD = /\b(?:tool|mouse)\b/i;

/** A clause that names a cable and a pad is two: “a 1.5 mm pad and a 50 cm cable come with it”. */
function cableAndPadApart(clause: Clause): Clause[] {
  if (!NAMES_CABLE.test(clause.text) || !NAMES_PAD.test(clause.text)) return [clause];
  for (const cut of clause.text.matchAll(/ (?:and|&|\+) /g)) {
    const [left, right] = [clause.text.slice(0, cut.index), clause.text.slice(cut.index + cut[0].length)];
    const cable = [NAMES_CABLE.test(left), NAMES_CABLE.test(right)];
    const pad = [NAMES_PAD.test(left), NAMES_PAD.test(right)];
    if (cable[0] === cable[1] || pad[0] === pad[1] || cable[0] === pad[0]) continue;
    const middle = clause.start + cut.index;
    return [
      { ...clause, end: middle, text: left },
      { ...clause, start: middle + cut[0].length, text: right }
    ];
  }
  return [clause];
}

/** Thicknesses that pads in a box have. */
const USUAL_PADS_MM = [0.5, 1, 1.5, 2];

/** A pad that lies in the box and of which nobody says how thick it is: asked. */
function padOfUnknownThickness(whole: string, clauses: readonly Clause[]): OpenQuestion[] {
  const named = clauses.find(
    ({ text, line }) =>
      /\bthermal pads?\b/i.test(text) &&
      /\b(?:includ|suppl|comes? with|ships? with|in the box|with)/i.test(whole.slice(line.start, line.end)) &&
      !/\b(?:no|not|without)\b/i.test(text)
  );
  if (!named) return [];
  return [
    {
      path: 'includedPads',
      why: 'A pad lies in the box; how thick it is, the text does not say.',
      options: USUAL_PADS_MM.map((thicknessMm) => ({ value: [{ thicknessMm }], words: named.text.trim() })),
      spans: [{ start: named.start, end: named.end }]
    }
  ];
}

/** Reads what lies in the box: cables and pads, a clause each. */
export function inTheBox(
  text: string,
  clauses: readonly Clause[],
  ownPlug: string | undefined
): { gathered: Gathered; spans: Span[] } {
  const cables = { path: 'includedCables', value: [] as unknown[], at: [] as Span[] };
  const pads = { path: 'includedPads', value: [] as unknown[], at: [] as Span[] };
  const spans: Span[] = [];
  const all = withTheirMeasures(clauses).flatMap(cableAndPadApart);
  for (const clause of all) {
    const ofLine = clause.line.start === clause.start ? clause.text : text.slice(clause.line.start, clause.end);
    let into: typeof cables;
    let found: unknown[] = [];
    if (NAMES_CABLE.test(clause.text) && !NO_LOOSE_CABLE.test(clause.text)) {
      into = cables;
      found = [boxedCable(clause.text, ownPlug) ?? []].flat();
    } else {
      into = pads;
      if (NAMES_PAD.test(ofLine) && !OTHER_PAD.test(clause.text)) found = boxedPads(clause.text);
    }
    if (found.length === 0) continue;
    const span = { start: clause.start, end: clause.end };
    spans.push(span);
    into.value.push(...found);
    into.at.push(span);
  }
  // What lies in the box is put together from several words, with usual ends where none are named: always to be confirmed.
  const claims = [cables, pads].flatMap(({ path, value, at }) =>
    at.map((span): Claim => ({ ...span, path, value, sure: false }))
  );
  return { gathered: { claims, questions: pads.value.length > 0 ? [] : padOfUnknownThickness(text, all) }, spans };
}
