/* eslint-disable @typescript-eslint/no-non-null-assertion -- the groups named here take part in every match of their pattern */
import { M2_KEYS, M2_LENGTHS } from '../parts/drive.ts';
import { inTheBox } from './in-the-box.ts';
import { linksIn, modesFrom } from './links.ts';
import { claimsIn, meaning, listOf, measured, meansWhenSaid, allClaims, type Pattern } from './pattern.ts';
import type { Claim, Gathered, Span } from './claims.ts';
import { plugsIn } from './plugs-and-lengths.ts';
import { believable, blank, clausesOf, NUMBER } from './text.ts';

/** “Fan: none”, “built-in fan no”, “fan not included”. */
const FAN_DENIED = /\bfans?\W{0,4}(?:no\b|none\b|not (?:included|fitted))/gi;

/** Grams in capitals are the rate in a name (“Case 10G”), unless the word before says that it is a weight. */
const WEIGHT: Pattern = {
  path: 'weightG',
  match: new RegExp(
    String.raw`(\bweigh(?:t|s)\b[^,;\n\d]{0,24}?)?(?<![\w.,])(${NUMBER}) ?-?(grams?|gr|g|kg)(?![A-Za-z0-9/])`,
    'gi'
  ),
  mean: (m) => {
    if (m[3]!.startsWith('G') && m[3]!.length === 1 && !m[1]) return undefined;
    return meaning(believable(m[2]!, /^kg$/i.test(m[3]!) ? 1000 : 1, 10, 8000)[0]);
  }
};

const CASE: Pattern[] = [
  meansWhenSaid('formFactor', /\bm\.?2\b|\bngff\b|(?<!\d)22(?:30|42|60|80|110)(?!\d)/gi, 'm2'),
  meansWhenSaid('formFactor', /\bnvme\b/gi, 'm2', { sure: false }),
  meansWhenSaid('formFactor', /(?<![\d.])2[.,]5 ?-?(?:inch|in\b|"|''|zoll)/gi, '2.5in'),
  meansWhenSaid('formFactor', /(?<![\d.])3[.,]5 ?-?(?:inch|in\b|"|''|zoll)/gi, '3.5in'),
  meansWhenSaid('uas', /\buasp?\b(?!\W{1,3}no\b)/gi, true, { denies: false }),
  meansWhenSaid('uas', /\buasp?\W{1,3}no\b/gi, false),
  meansWhenSaid('trim', /\btrim\b(?!\W{1,3}no\b)/gi, true, { denies: false }),
  meansWhenSaid('trim', /\btrim\W{1,3}no\b/gi, false),
  meansWhenSaid('cooling.kind', /\b(?:fan-?less|passive(?:ly)?|no (?:built-in |cooling )?fan)\b/gi, 'passive'),
  meansWhenSaid('cooling.kind', FAN_DENIED, 'passive'),
  meansWhenSaid(
    'cooling.kind',
    /\bfans?\b(?! ?-?less)(?!\W{0,4}(?:no\b|none\b|without|not (?:included|fitted)))/gi,
    'fan',
    {
      denies: 'passive'
    }
  ),
  meansWhenSaid('cooling.material', /\balumini?um\b|\balu\b/gi, 'aluminium'),
  meansWhenSaid('cooling.material', /\b(?:plastic|abs|polycarbonate)\b/gi, 'plastic'),
  meansWhenSaid(
    'retention',
    /\b(?:tool-? ?(?:free|less)|no tools?(?: needed| required)?|screw-?less)\b/gi,
    'tool-less'
  ),
  meansWhenSaid(
    'retention',
    /\bscrew(?:s|ed)? (?:fixing|fixed|mount(?:ing)?|down)|fixed (?:with|by) (?:a |one )?screws?/gi,
    'screw'
  ),
  meansWhenSaid('retention', /\b(?:tray|slide-in)\b/gi, 'tray', { sure: false }),
  meansWhenSaid(
    'captiveCable',
    /\b(?:captive|fixed|attached|built-in|integrated) (?:usb(?:-c)? |thunderbolt )?cable/gi,
    true
  ),
  meansWhenSaid('externalSupply', /\b(?:mains adapter|(?:power|ac|dc)[- ](?:adapter|supply|brick)|12 ?v\b)/gi, true, {
    denies: false
  }),
  meansWhenSaid('externalSupply', /\bbus[- ]powered/gi, false),
  meansWhenSaid('takesDoubleSided', /\b(?:double|dual)[- ]sided\b(?! ?(?:tape|adhesive|pad))/gi, true, {
    denies: false
  }),
  {
    path: 'bridge',
    match:
      /\b(?:bridge(?: ?(?:chip|board|controller))?|chip(?:set)?|(?:usb )?controller)\b ?[:=]\s{0,3}([^\n,;(]{2,60})/gi,
    mean: (m) => meaning(m[1]!.trim())
  },
  measured(
    'maxCapacityTB',
    String.raw`\b(?:up to|max(?:\.|imum)?(?: (?:drive )?capacity)?|capacity|supports?)\b[^;\n\d]{0,40}?`,
    { TB: 1, GB: 1e-3 },
    '',
    [0.1, 100]
  ),
  measured('maxCapacityTB', '', { TB: 1, GB: 1e-3 }, String.raw`(?= ?max)`, [0.1, 100]),
  WEIGHT,
  meansWhenSaid('downstreamSataGbps', /\bsata(?: ?(?:iii)\b|[^,;\n\d]{0,40}6(?:\.0)? ?gb)/gi, 6),
  meansWhenSaid('downstreamSataGbps', /\bsata(?: ?ii\b|[^,;\n\d]{0,40}3(?:\.0)? ?gb)/gi, 3),
  {
    path: 'downstreamPcie.generation',
    match: /\bpci(?:e|[- ]express) ?(?:gen\.? ?)?([2-5])(?:\.0)?/gi,
    mean: (m) => meaning(Number(m[1]))
  },
  {
    path: 'downstreamPcie.lanes',
    match: /\bpci(?:e|[- ]express)[^,;\n]{0,12}?x ?([124])(?!\d)/gi,
    mean: (m) => meaning(Number(m[1]))
  },
  measured('clearanceTopMm', String.raw`\b(?:clearance|room) (?:above|over)[^,;\n\d]{0,20}?`, { mm: 1 }, '', [0.2, 40])
];

function protocolsOf(text: string): Gathered {
  const spans: (Span & { protocol: string })[] = [];
  const only: Claim[] = [];
  for (const m of text.matchAll(/\bnvme\b|\bsata\b(?! ?(?:6|3|iii|ii)\b ?g?)/gi)) {
    const before = text.slice(Math.max(0, m.index - 40), m.index);
    const after = text.slice(m.index + m[0].length, m.index + 40);
    if (/\be-?$/i.test(before)) continue;
    const refused =
      /\b(?:not|no|without|doesn't|incompatible)\b[^.;\n]{0,30}$/i.test(before) ||
      /^(?: m\.2)?[^.;\n]{0,14}\b(?:not\b|unsupported)/i.test(after);
    if (!refused) spans.push({ start: m.index, end: m.index + m[0].length, protocol: m[0].toLowerCase() });
  }
  for (const m of text.matchAll(/\b(nvme|sata)(?: m\.2)?(?: drives?| ssds?)? only\b|\bonly (?:for )?(nvme|sata)\b/gi)) {
    // "NVMe only" is a statement of its own; where the text elsewhere promises both, the two are put to the person.
    only.push({
      path: 'protocols',
      value: [(m[1] ?? m[2]!).toLowerCase()],
      start: m.index,
      end: m.index + m[0].length,
      sure: true
    });
  }
  const bay = /(?<![\d.])[23][.,]5 ?-?(?:inch|in\b|"|''|zoll)/i.test(text) && !/\bm\.2\b/i.test(text);
  if (spans.length === 0 && bay)
    for (const m of text.matchAll(/\bsata\b/gi))
      spans.push({ start: m.index, end: m.index + m[0].length, protocol: 'sata' });
  const value = ['nvme', 'sata'].filter((p) => spans.some((s) => s.protocol === p));
  if (value.length === 0) return { claims: [], questions: [] };
  return {
    claims: [...spans.map(({ start, end }) => ({ path: 'protocols', value, start, end, sure: true })), ...only],
    questions: []
  };
}

/** Thickest drive of a bay: the larger end of a range, or a single thickness. */
function thickest(text: string): Gathered {
  const match = new RegExp(
    String.raw`(?:(\d{1,4}(?:[.,]\d{1,3})?) ?(?:mm)? ?(?:-|to|\/|and|or) ?)?(?<![\d.,])(\d{1,4}(?:[.,]\d{1,3})?) ?mm\b(?! ?x)(?<!x ?\d+(?:[.,]\d+)? ?mm)`,
    'gi'
  );
  const claims: Claim[] = [];
  for (const m of text.matchAll(match)) {
    const numbers = [m[1], m[2]].filter((n) => n !== undefined).map((n) => Number(n.replace(',', '.')));
    const top = Math.max(...numbers);
    const line = text.lastIndexOf('\n', m.index) + 1;
    const near = text.slice(Math.max(line, m.index - 120), m.index + m[0].length + 20);
    if (
      top >= 5 &&
      top <= 30 &&
      /2[.,]5|thick|height|drive|ssd|hdd|enclosure|\bmax\b/i.test(near) &&
      !/\b(?:pads?|cable|dimensions?|fan)\b[^,;\n]*$/i.test(text.slice(line, m.index))
    )
      claims.push({ path: 'maxThicknessMm', value: top, start: m.index, end: m.index + m[0].length, sure: true });
  }
  // A bay that takes 7 and 9.5 mm takes 9.5 mm.
  const value = Math.max(...claims.map((claim) => claim.value as number));
  return { claims: claims.map((claim) => ({ ...claim, value })), questions: [] };
}

/** Reads the box or the page of an enclosure. */
export function readEnclosure(text: string): Gathered {
  const clauses = clausesOf(text);
  const withoutCables = blank(
    text,
    clauses.filter(
      (c) =>
        /\bcables?\b/i.test(c.text) &&
        /includ|box|package|scope|deliver|\bcm\b|\b[\d.]+ ?m\b/i.test(text.slice(c.line.start, c.end)) &&
        !/\benclosure for|nvme|case\b/i.test(c.text)
    )
  );
  const plugs = plugsIn(withoutCables);
  const own = plugs[0]?.plug;
  const box = inTheBox(text, clauses, own);
  const bare = blank(text, box.spans);
  const claims: Claim[] = plugs
    .filter(
      (p) =>
        p.plug === own || !/usb-[ab]/.test(p.plug) || /port|socket|connector|jack/i.test(bare.slice(p.at, p.at + 24))
    )
    .map(({ plug, at, length }) => ({ path: 'plug', value: plug, start: at, end: at + length, sure: true }));
  const links = linksIn(
    blank(
      bare,
      [...bare.matchAll(/\bsata[^,;\n]{0,16}?\d(?:\.\d)? ?g(?:b|bit)[^\s,;]*/gi)].map((m) => ({
        start: m.index,
        end: m.index + m[0].length
      }))
    )
  );
  return allClaims(
    { claims, questions: [] },
    modesFrom(bare, links, 'modes'),
    protocolsOf(bare),
    claimsIn(blank(bare, links.spans), CASE),
    thickest(bare),
    listOf(
      bare,
      'm2LengthsMm',
      /(?<!\d)22(30|42|60|80|110)(?: ?(?:-|to) ?22(30|42|60|80|110))?(?!\d)/g,
      // "2230 to 2280" are all that lie between.
      (m) => M2_LENGTHS.filter((mm) => mm >= Number(m[1]) && mm <= Number(m[2] ?? m[1])),
      M2_LENGTHS as readonly number[]
    ),
    listOf(
      bare,
      'm2Keys',
      /\b(?:b ?[+&] ?m|m ?[+&] ?b)\b|\b[bm](?:[- ]key|(?= and b ?\+ ?m))|(?<=\bkeys?:? ?)[bm]\b(?! ?[+&])/gi,
      (m) => (/[+&]/.test(m[0]) ? 'B+M' : m[0][0]!.toUpperCase()),
      M2_KEYS as readonly string[]
    ),
    box.gathered
  );
}
