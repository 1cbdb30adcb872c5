/* eslint-disable @typescript-eslint/no-non-null-assertion -- the groups named here take part in every match of their pattern, and a plug was found before it is read */
import { type Clause, clausesOf, numbersIn, NUMBER, withoutEnd } from './text.ts';
import type { LinkMode } from '../facts/link-modes.ts';
import { capacities } from './drive.ts';
import { LENGTH_M, metres, plugsIn } from './plugs-and-lengths.ts';
import { linksIn, modesFrom } from './links.ts';
import { claimsIn, meaning, measured, meansWhenSaid, allClaims } from './pattern.ts';
import { sequentialRates } from './rates.ts';
import type { Claim, Gathered, OpenQuestion, Span } from './claims.ts';

/** Two prints of one length, in metres and in feet, differ by rounding. */
const SAME_LENGTH = 0.05;

const nothing: Gathered = { claims: [], questions: [] };

/** Reads the bag of a cable. */
export function readCable(text: string): Gathered {
  const claims: Claim[] = [];
  const between =
    /\b((?:usb[- ])?(?:type[- ])?(?:micro[- ]?b|[abc])\b(?: male)?) ?(?:to|-|->|\/|2) ?((?:usb[- ])?(?:type[- ])?(?:micro[- ]?b|[abc])\b)/gi;
  const plugOf = (word: string) =>
    /micro/i.test(word) ? 'micro-b' : `usb-${/[abc](?= male|$)/i.exec(word.trim())![0].toLowerCase()}`;
  for (const m of text.matchAll(between))
    claims.push({
      path: 'ends',
      value: [plugOf(m[1]!), plugOf(m[2]!)],
      start: m.index,
      end: m.index + m[0].length,
      sure: true
    });
  if (claims.length === 0) {
    const plugs = plugsIn(text);
    if (plugs.length > 0)
      claims.push({
        path: 'ends',
        value: [plugs[0]!.plug, (plugs[1] ?? plugs[0]!).plug],
        start: plugs[0]!.at,
        end: plugs[0]!.at + plugs[0]!.length,
        sure: plugs.length > 1
      });
  }
  let last: number | undefined;
  for (const m of text.matchAll(LENGTH_M)) {
    const value = metres(m[1]!, m[2]!);
    // “1 m / 3.3 ft” is one length, printed twice.
    const again = last !== undefined && value !== undefined && Math.abs(value / last - 1) < SAME_LENGTH;
    if (value !== undefined && !again)
      claims.push({ path: 'lengthM', value, start: m.index, end: m.index + m[0].length, sure: true });
    last = value;
  }
  const modes = modesFrom(text, linksIn(text), 'modes');
  const chargeOnly = [...text.matchAll(/\bcharg(?:e|ing)[- ]only\b|\bno data\b/gi)].map((m): Claim => ({
    path: 'modes',
    value: ['usb2'],
    start: m.index,
    end: m.index + m[0].length,
    sure: false
  }));
  return allClaims(
    { claims, questions: [] },
    modes.claims.length + modes.questions.length > 0 ? modes : { claims: chargeOnly, questions: [] },
    claimsIn(text, [
      meansWhenSaid('active', /(?<!inter|re)\bactive\b/gi, true, { denies: false }),
      meansWhenSaid('active', /\bpassive\b/gi, false),
      meansWhenSaid('certified', /\bcertified\b/gi, true, { denies: false })
    ])
  );
}

/** Reads the sheet of a pad. Of three measures the smallest is the thickness. */
export function readPad(text: string): Gathered {
  const claims: Claim[] = [];
  const sizes = new RegExp(String.raw`(${NUMBER}) ?(?:mm)? ?x ?(${NUMBER}) ?(?:mm)?(?: ?x ?(${NUMBER}))? ?mm`, 'gi');
  for (const m of text.matchAll(sizes)) {
    const span: Span = { start: m.index, end: m.index + m[0].length };
    const all = [m[1], m[2], m[3]].filter((n) => n !== undefined).map((n) => numbersIn(n)[0]!);
    const thickness = all.length === 3 ? Math.min(...all) : undefined;
    const [width, length] = all.length === 3 ? all.filter((_, i) => i !== all.indexOf(thickness!)) : all;
    claims.push(
      { ...span, path: 'widthMm', value: width, sure: true },
      { ...span, path: 'lengthMm', value: length, sure: true }
    );
    if (thickness !== undefined) claims.push({ ...span, path: 'thicknessMm', value: thickness, sure: true });
  }
  const rest = text.replace(sizes, (m) => ' '.repeat(m.length));
  return allClaims(
    { claims, questions: [] },
    claimsIn(rest, [
      measured('thicknessMm', '', { mm: 1 }, '(?! ?x)', [0.2, 10]),
      measured(
        'conductivityWmK',
        '',
        { 'W/mK': 1, 'W/m K': 1, 'W/(mK)': 1, 'W/(m K)': 1, 'W/m-K': 1, 'W/m.K': 1 },
        '',
        [0.5, 60]
      ),
      { path: 'shore00', match: /\bshore[ -]?(?:00|oo)[^\w\n]{0,4}(\d{1,2})\b/gi, mean: (m) => meaning(Number(m[1])) },
      { path: 'shore00', match: /\b(\d{1,2}) ?shore[ -]?(?:00|oo)\b/gi, mean: (m) => meaning(Number(m[1])) },
      {
        path: 'quantity',
        match:
          /(?:\b(?:quantity|pack of|set of|contains)\W{0,3})(\d{1,3})\b|\b(\d{1,3}) ?(?:pcs|pieces|sheets|pads|pack)\b/gi,
        mean: (m) => meaning(Number(m[1] ?? m[2]))
      }
    ])
  );
}

const SORTS: readonly [RegExp, string][] = [
  [/\b(?:flash|usb|memory) ?(?:stick|drive)\b|\bthumb ?drive\b/gi, 'flash-stick'],
  [/\b(?:memory|sd|sdxc|microsd|cf(?:express)?) ?cards?\b/gi, 'memory-card'],
  [/\b(?:portable|external) (?:ssd|hdd|hard (?:disk|drive)|drive|disk)\b/gi, 'portable']
];

/** Reads what stands beside a build of one's own: a portable drive, a stick, a card. */
export function readAlternative(text: string): Gathered {
  return allClaims(
    claimsIn(
      text,
      SORTS.map(([match, value]) => meansWhenSaid('sort', match, value))
    ),
    capacities(text),
    sequentialRates(clausesOf(text))
  );
}

const OS: readonly [RegExp, string][] = [
  [/\bwindows(?: (\d+))?/gi, 'windows'],
  [/\bmacos(?: (\d+(?:\.\d+)*))?/gi, 'macos'],
  [/\blinux\b(?:[^\n;]{0,12}?kernel)?(?: (\d+(?:\.\d+)+))?/gi, 'linux'],
  [/\bipados(?: (\d+(?:\.\d+)*))?/gi, 'ipados'],
  [/\bandroid(?: (\d+))?/gi, 'android'],
  [/\bchromeos(?: (\d+))?/gi, 'chromeos']
];

/** Reads the operating system and its version. */
function readSystem(text: string): Claim[] {
  const claims: Claim[] = [];
  for (const [match, family] of OS)
    for (const m of text.matchAll(new RegExp(match))) {
      const span = { start: m.index, end: m.index + m[0].length };
      claims.push({ ...span, path: 'os.family', value: family, sure: true });
      const version = m[1] ?? (family === 'linux' ? /\bkernel (\d+(?:\.\d+)+)/i.exec(text)?.[1] : undefined);
      if (version) claims.push({ ...span, path: 'os.version', value: version, sure: true });
    }
  return claims;
}

/** Ports that one clause names, all alike; and what is to be asked of their modes. */
type NamedPorts = { label: string; count: number; plug: string; modes: LinkMode[]; doubt: string | undefined };

/** The most ports that one clause is taken to name. */
const MOST_PORTS = 16;

/** Tells the plug of a port that names none, by its best mode. */
function plugOfMode(mode: LinkMode): string | undefined {
  if (/tbt|usb4/.test(mode)) return 'usb-c';
  return mode.startsWith('esata') ? 'esata' : undefined;
}

/** Reads the ports of one clause; undefined where it names none. */
// eslint-disable-next-line complexity -- a dozen small readings of one clause, each with its usual value
function readPorts(text: string, clause: Clause): NamedPorts | undefined {
  const links = linksIn(clause.text);
  if (links.spans.length === 0) return undefined;
  const { claims, questions } = modesFrom(clause.text, links, 'modes');
  const modes = (claims[0]?.value ?? questions[0]?.options[0]?.value) as LinkMode[] | undefined;
  const plug = modes && (plugsIn(clause.text)[0]?.plug ?? plugOfMode(modes[0]!));
  if (!plug) return undefined;
  const count = /(?:^|[\s:(-])(\d{1,2}) ?x ?(?=\D)/i.exec(clause.text);
  const line = text.slice(clause.line.start, clause.end);
  const where = /\b(front|rear|left|right|back)\b/i.exec(line)?.[1]?.toLowerCase();
  const rest = clause.text.slice(count ? count.index + count[0].length : 0).replace(/^[\s:-]+/, '');
  return {
    label: [where, withoutEnd(rest).slice(0, 60)].filter(Boolean).join(' '),
    count: Math.min(Number(count?.[1] ?? 1), MOST_PORTS),
    plug,
    modes,
    doubt: questions[0]?.why
  };
}

/** Reads the ports and the system from the page of a computer: `2 x Thunderbolt 4 (USB-C)` is two ports. */
export function readHost(text: string): Gathered {
  const claims = readSystem(text);
  const ports: unknown[] = [];
  const spans: Span[] = [];
  const questions: OpenQuestion[] = [];
  for (const clause of clausesOf(text)) {
    const named = readPorts(text, clause);
    if (!named) continue;
    const { label, count, plug, modes, doubt } = named;
    for (let i = 0; i < count; i++)
      ports.push({
        id: `p${ports.length + 1}`,
        label: [label, count > 1 ? String(i + 1) : ''].filter(Boolean).join(' '),
        plug,
        modes
      });
    const span = { start: clause.start, end: clause.end };
    spans.push(span);
    if (doubt) questions.push({ path: 'ports', why: `“${clause.text.trim()}”: ${doubt}`, options: [], spans: [span] });
  }
  if (ports.length === 0) return { claims, questions: nothing.questions };
  if (questions.length === 0)
    claims.push(...spans.map((span) => ({ ...span, path: 'ports', value: ports, sure: false })));
  for (const question of questions) question.options = [{ value: ports, words: 'as read; check the modes' }];
  return { claims, questions: questions.slice(0, 1) };
}
