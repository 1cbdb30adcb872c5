/* eslint-disable @typescript-eslint/no-non-null-assertion -- the groups named here take part in every match of their pattern */
import { claimsIn, meaning, measured, meansWhenSaid, allClaims, type Pattern } from './pattern.ts';
import { sequentialRates } from './rates.ts';
import type { Claim, Gathered } from './claims.ts';
import { believable, clausesOf, NUMBER, NUMBER_WORD, numbersIn } from './text.ts';

const TB = { TB: 1, GB: 1e-3, TByte: 1, GByte: 1e-3, terabyte: 1, terabytes: 1 };
const WATT = { W: 1, mW: 1e-3, watt: 1, watts: 1 };
const LENGTH = String.raw`(?<!\d)(?:22)(30|42|60|80|110)(?!\d)`;

/** Sizes that drives are sold in, in TB: a capacity without its label must be one of them or follow a name. */
const USUAL = new Set([
  0.032, 0.064, 0.12, 0.128, 0.24, 0.25, 0.256, 0.48, 0.5, 0.512, 0.96, 1.024, 1.92, 2.048, 3.84, 4.096, 7.68
]);
const usualSize = (tb: number) => USUAL.has(tb) || (tb >= 1 && tb <= 40 && Number.isInteger(tb));

/** Years of warranty in either order: `5-year limited warranty`, `Warranty: 60 months`, `lasts five years`. */
const yearsOf = (count: string, unit: string) => {
  const years = numbersIn(count)[0]! / (/^month|^mo\b/i.test(unit) ? 12 : 1);
  return years > 0 && years <= 15 ? years : undefined;
};
const SPAN = String.raw`(\d{1,3}|${NUMBER_WORD})[- ]?(years?|yrs?|months?|jahre)`;
const WARRANTY: Pattern[] = [
  {
    path: 'warrantyYears',
    match: new RegExp(String.raw`${SPAN}\b[^.,;\n\d]{0,30}\b(?:warranty|guarantee|garantie)`, 'gi'),
    mean: (m) => meaning(yearsOf(m[1]!, m[2]!))
  },
  {
    path: 'warrantyYears',
    match: new RegExp(String.raw`(?:warranty|guarantee|garantie)[^.,;\n\d]{0,40}?\b${SPAN}\b`, 'gi'),
    mean: (m) => meaning(yearsOf(m[1]!, m[2]!))
  },
  { path: 'warrantyYears', match: /warranty \(years\)\W{1,6}(\d{1,2})\b/gi, mean: (m) => meaning(Number(m[1])) }
];

const GENERATION = [2, 3, 4, 5];
const pcieGeneration = (digit: string | undefined) =>
  meaning(GENERATION.includes(Number(digit)) ? Number(digit) : undefined);
const PCIE: Pattern[] = [
  {
    path: 'pcie.generation',
    match:
      /\bpci(?:e|[- ]?express)? ?(?:x ?[124] ?)?(?:gen(?:eration)?\.? ?|v(?:ersion)? ?)?([2-5])(?:\.0)?(?!\d|\.\d|-lane)/gi,
    mean: (m) => pcieGeneration(m[1])
  },
  {
    path: 'pcie.generation',
    match:
      /(?<!usb[ \d.]{0,6}|3\.[12] ?)\bgen(?:eration)?\.? ?([2-5])(?:\.0)?(?= ?x ?[124](?!\d)| nvme|,? x[124]|$|\s)/gim,
    mean: (m) => pcieGeneration(m[1])
  },
  {
    path: 'pcie.lanes',
    match:
      /(?<!usb[ \d.]{0,6}|3\.[12] ?)\b(?:pci(?:e|[- ]?express)|gen)[^,;\n]{0,16}?x ?([124])(?!\d| ?\d* ?(?:gb|mm|pcs))/gi,
    mean: (m) => meaning(Number(m[1]))
  },
  { path: 'pcie.lanes', match: /\b([124])[- ]lanes?\b/gi, mean: (m) => meaning(Number(m[1])) }
];

const FLASH: Pattern[] = [
  meansWhenSaid('flash.cell', /\b(?:qlc|4[- ]bit)\b/gi, 'qlc'),
  meansWhenSaid('flash.cell', /\b(?:tlc|3[- ]bit(?: mlc)?)\b/gi, 'tlc'),
  meansWhenSaid('flash.cell', /(?<!3[- ]bit )\bmlc\b/gi, 'mlc'),
  meansWhenSaid('flash.cell', /(?<!p)\bslc\b(?!\)?[- ]?(?:cache|mode|write|buffer))/gi, 'slc'),
  meansWhenSaid('flash.dram', /\b(?:dram-?less|hmb|host memory buffer)\b/gi, false),
  meansWhenSaid('flash.dram', /\bdram[^,;\n]{0,12}?(?:\bnone\b|\bno\b)/gi, false),
  meansWhenSaid('flash.dram', /\b(?:lp)?ddr[345]\w*|\bdram\b(?! ?-?less|[^,;\n]{0,12}(?:none|\bno\b)|-free)/gi, true, {
    denies: false
  }),
  measured(
    'flash.cacheGB',
    String.raw`(?:slc[- ]?(?:mode )?|write |dynamic )cache[^,;\n\d]{0,40}?`,
    { GB: 1, TB: 1000 },
    '',
    [1, 5000]
  ),
  measured('flash.cacheGB', '', { GB: 1 }, String.raw`(?= (?:of )?(?:dynamic |p?slc )+(?:write )?cache)`, [1, 5000]),
  meansWhenSaid(
    'flash.cacheKind',
    /\bdynamic(?:ally)?\b(?=[^;\n]{0,30}cache)|(?<=cache[^;\n]{0,40})\bdynamic/gi,
    'dynamic'
  ),
  meansWhenSaid(
    'flash.cacheKind',
    /\bfixed\b(?=[^;\n]{0,20}cache)|(?<=cache[^;\n]{0,40})\b(?:fixed|static)\b/gi,
    'fixed'
  )
];

const ENDURANCE: Pattern[] = [
  measured(
    'enduranceTBW',
    '',
    { TBW: 1, PBW: 1000, 'TB written': 1, 'terabytes written': 1, 'TB (TBW)': 1 },
    '',
    [20, 200_000]
  ),
  measured(
    'enduranceTBW',
    String.raw`\b(?:tbw|endurance|terabytes written)\b[^,;\n\d]{0,40}?`,
    { TB: 1, PB: 1000, TBW: 1, PBW: 1000, '': 1 },
    String.raw`(?! ?(?:hours|years|dwpd|%))`,
    [20, 200_000]
  )
];

const SIZE: Pattern[] = [
  { path: 'm2LengthMm', match: new RegExp(LENGTH, 'g'), mean: (m) => meaning(Number(m[1])) },
  meansWhenSaid('sides', /\bsingle[- ]?sided\b/gi, 'single', { denies: 'double' }),
  meansWhenSaid('sides', /\b(?:double|dual)[- ]?sided\b(?!\W{1,3}no\b)/gi, 'double', { denies: 'single' }),
  meansWhenSaid('sides', /\b(?:double|dual)[- ]?sided\W{1,3}no\b/gi, 'single'),
  {
    path: 'sides',
    match: /\b22\d{2,3}[- ]([SD])\d\b/gi,
    mean: (m) => meaning(m[1]!.toUpperCase() === 'S' ? 'single' : 'double')
  },
  {
    path: 'm2Key',
    match: /\b22\d{2,3}[- ][SD]\d[- ](B-M|B\+M|M|B)\b(?! ?\+)/gi,
    mean: (m) => meaning(m[1]!.toUpperCase().replace('-', '+'))
  },
  { path: 'm2HeightCode', match: /\b22\d{2,3}[- ]([SD][1-5])\b/gi, mean: (m) => meaning(m[1]!.toUpperCase()) },
  meansWhenSaid('m2Key', /\b(?:b ?[+&/] ?m|m ?[+&/] ?b)\b/gi, 'B+M'),
  meansWhenSaid('m2Key', /(?<![+&/] ?)\bm[- ]key(?:ed)?\b|\bkey:? m\b(?! ?[+&/])/gi, 'M'),
  meansWhenSaid('m2Key', /(?<![+&/] ?)\bb[- ]key(?:ed)?\b|\bkey:? b\b(?! ?[+&/])/gi, 'B'),
  measured(
    'thicknessMm',
    String.raw`(?<!heat ?sink )\b(?:height|thickness|thick|z-height)\b[^,;\n\d]{0,40}?`,
    { mm: 1 },
    '',
    [4, 30]
  ),
  measured('thicknessMm', String.raw`2[.,]5[- ]?(?:inch|in|"|zoll)[^;\n\d]{0,40}?`, { mm: 1 }, '(?! ?x)', [4, 16]),
  measured('thicknessMm', '', { mm: 1 }, String.raw`(?= (?:thick|thin|high|tall)\b)`, [4, 30]),
  measured('thicknessMm', '(?:^|[,/] ?)', { mm: 1 }, String.raw`(?= ?(?:thick|thin|high|height|$|,))`, [4, 16]),
  measured('heatsinkMm', String.raw`heat ?sink[^,;\n\d]{0,40}?`, { mm: 1 }, '', [0.3, 60]),
  measured('heatsinkMm', '', { mm: 1 }, '(?= heat ?sink)', [0.3, 60]),
  meansWhenSaid('label', /\bmetal(?:l?ised|lic)? label|copper label|graphene label/gi, 'metal'),
  meansWhenSaid('label', /\bpaper label/gi, 'paper')
];

const POWER = (text: string): Gathered => {
  const gathered: Gathered = { claims: [], questions: [] };
  const words =
    /\b(?:(idle|standby|ps[34])|(active|working|operating|operation|typical|average|writing|reading|reads?|writes?)|(peak|max(?:imum)?))\b/gi;
  for (const clause of clausesOf(text).flatMap((c) => splitAt(c.text, c.start, /\/|\band\b/g))) {
    const named = [...clause.text.matchAll(words)];
    const values = [
      ...clause.text.matchAll(new RegExp(String.raw`(?<![\w.,])(${NUMBER}) ?(m?w(?:atts?)?)\b(?!h)`, 'gi'))
    ];
    if (named.length === 0 || values.length !== 1) continue; // one of each, or nothing is said clearly
    const [value, printed, unit] = values[0]!;
    const word = named.at(-1)!;
    const path = word[1] ? 'power.idleW' : word[2] ? 'power.activeW' : 'power.peakW';
    const watts = believable(printed!, /^m/i.test(unit!) ? WATT.mW : 1, 0.001, 40);
    const start = clause.start + Math.min(values[0]!.index, word.index);
    const end = clause.start + Math.max(values[0]!.index + value.length, word.index + word[0].length);
    if (watts.length > 0) gathered.claims.push({ path, value: watts[0], start, end, sure: true });
  }
  return gathered;
};
function splitAt(text: string, offset: number, at: RegExp): { text: string; start: number }[] {
  const parts: { text: string; start: number }[] = [];
  let from = 0;
  for (const cut of text.matchAll(at)) {
    parts.push({ text: text.slice(from, cut.index), start: offset + from });
    from = cut.index + cut[0].length;
  }
  return [...parts, { text: text.slice(from), start: offset + from }];
}

const RANGE = String.raw`([-+]?\d{1,3}) ?(?:°? ?C)? ?(?:-|to|~|\.\.+|\/) ?([-+]?\d{1,3}) ?°? ?C\b`;
const OPERATING = String.raw`\b(?<!non-?)(?:operating|working|ambient)\b`;
/** The range in which a drive may work: the words before or after it; a range for storage is another one. */
const HEAT: Pattern[] = [false, true].flatMap((top): Pattern[] =>
  [
    new RegExp(String.raw`${OPERATING}[^,;\n\d-]{0,30}?${RANGE}`, 'gi'),
    new RegExp(String.raw`${RANGE}[^,;\n\d]{0,12}${OPERATING}`, 'gi')
  ].map((match) => ({
    path: top ? 'operating.maxC' : 'operating.minC',
    match,
    mean: (m) => {
      const [low, high] = [Number(m[1]), Number(m[2])];
      return meaning(low < high ? (top ? high : low) : undefined);
    }
  }))
);
HEAT.push(
  measured('throttle.startC', String.raw`\bthrottl\w+[^,;\n\d]{0,24}?`, { '°C': 1, '° C': 1, C: 1 }, '', [40, 115])
);

const DISK: Pattern[] = [
  measured('disk.rpm', '', { rpm: 1, 'r/min': 1, '/min': 1 }, '', [4000, 15_000]),
  meansWhenSaid('disk.recording', /\b(?:smr|shingled)\b/gi, 'smr'),
  meansWhenSaid('disk.recording', /\b(?:cmr|pmr|conventional(?:ly)?(?: magnetic)?(?: recording)?)\b/gi, 'cmr'),
  measured(
    'disk.outerMBps',
    String.raw`\b(?:transfer rate|data rate|sustained|throughput|read|up to|at most|maximum)\b[^;\n\d]{0,40}?`,
    { 'MB/s': 1, MBps: 1, 'MiB/s': 1.048576 },
    '',
    [40, 600]
  )
];

/** Gives capacities: with their label, in the title, or as one of the sizes that drives are sold in. Memory, wear and limits are not meant. */
export function capacities(text: string, path = 'capacityTB'): Gathered {
  const claims: Claim[] = [];
  for (const match of text.matchAll(
    new RegExp(
      String.raw`(?<![\w.,])(${NUMBER}) ?-?(TB|GB|TByte|GByte|terabytes?)\b(?! ?(?:\/ ?(?:d|y|mo|s\b)|per\b|of (?:dram|memory|ram|slc|cache)|a (?:year|day)|written|w\b|\(tbw|ddr|lpddr|dram|ram\b|(?:dynamic |p?slc )*cache))`,
      'gi'
    )
  )) {
    const line = text.slice(text.lastIndexOf('\n', match.index) + 1, match.index);
    const before = line.split(/[,;](?=\s)/).at(-1)!;
    if (
      /(?:cache|dram|\bram\b|memory(?! card)|tbw|endurance|written|workload|ddr\d\w*|hmb|buffer|up to|max\.?[^\n]{0,12}|support\w*|files?)[^\n]{0,20}$/i.test(
        before
      )
    )
      continue;
    const tb = believable(match[1]!, TB[match[2]!.toUpperCase().startsWith('G') ? 'GB' : 'TB'], 0.03, 60);
    const title = text.lastIndexOf('\n', match.index) < 0 || /capacit|size/i.test(line);
    const value = tb.find((v) => usualSize(v)) ?? (title ? tb[0] : undefined);
    if (value !== undefined)
      claims.push({ path, value, start: match.index, end: match.index + match[0].length, sure: true });
  }
  return { claims, questions: [] };
}

/** Reads the data sheet of a bare drive. */
export function readDrive(text: string): Gathered {
  const media = claimsIn(text, [
    meansWhenSaid('media', /\bnvme\b/gi, 'nvme'),
    meansWhenSaid(
      'media',
      /\bsata[^.\n]{0,24}?\b(?:ssd|solid state)|(?:ssd|solid state)[^.\n]{0,24}?\bsata\b/gi,
      'sata-ssd'
    ),
    meansWhenSaid('media', /\b(?:hdd|hard (?:disk|drive)s?(?: drive)?)\b/gi, 'hdd'),
    meansWhenSaid('media', /\bpcie?\b(?=[^\n]{0,20}\b(?:ssd|gen))/gi, 'nvme', { sure: false }),
    meansWhenSaid('media', /\brpm\b/gi, 'hdd', { sure: false }),
    meansWhenSaid('media', /\bssd\b/gi, /\bsata\b/i.test(text) ? 'sata-ssd' : 'nvme', { sure: false }),
    meansWhenSaid('formFactor', /\bm\.2\b/gi, 'm2'),
    meansWhenSaid('formFactor', new RegExp(LENGTH, 'g'), 'm2'),
    meansWhenSaid('formFactor', /(?<![\d.])2[.,]5 ?-?(?:inch|in\b|"|''|zoll)/gi, '2.5in'),
    meansWhenSaid('formFactor', /(?<![\d.])3[.,]5 ?-?(?:inch|in\b|"|''|zoll)/gi, '3.5in'),
    meansWhenSaid('sataGbps', /\bsata(?: ?(?:iii|3\.\d)\b|[^,;\n\d]{0,40}6(?:\.0)? ?gb)/gi, 6),
    ...(/\bsata\b/i.test(text) ? [meansWhenSaid('sataGbps', /(?<![\d.])6(?:\.0)? ?gb(?:it)?(?:\/s|ps)/gi, 6)] : []),
    meansWhenSaid('sataGbps', /\bsata(?: ?ii\b|[^,;\n\d]{0,40}3(?:\.0)? ?gb)/gi, 3)
  ]);
  const isDisk = media.claims.some((claim) => claim.path === 'media' && claim.value === 'hdd' && claim.sure);
  const found = allClaims(
    media,
    capacities(text),
    claimsIn(text, [...WARRANTY, ...SIZE, ...HEAT]),
    POWER(text),
    isDisk
      ? claimsIn(text, DISK)
      : allClaims(sequentialRates(clausesOf(text)), claimsIn(text, [...PCIE, ...FLASH, ...ENDURANCE]))
  );
  return isDisk ? { ...found, claims: found.claims.filter((claim) => claim.path !== 'media' || claim.sure) } : found;
}
