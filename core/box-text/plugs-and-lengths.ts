import { believable, NUMBER } from './text.ts';

export const PLUG: readonly [RegExp, string][] = [
  [/\bmicro[- ]?b\b/i, 'micro-b'],
  [/\b(?:usb )?(?:usb|type)[- ]?c\b|\busb[- ]type[- ]c\b/i, 'usb-c'],
  [/\b(?:usb|type)[- ]?b\b(?! ?[+&/]|-?key| key)|\busb[- ]type[- ]b\b/i, 'usb-b'],
  [/\b(?:usb|type)[- ]?a\b|\busb[- ]type[- ]a\b/i, 'usb-a'],
  [/\be-?sata\b/i, 'esata']
];
/** Lists every plug named in a stretch, in order. */
export function plugsIn(text: string): { plug: string; at: number; length: number }[] {
  const all = PLUG.flatMap(([pattern, plug]) =>
    [...text.matchAll(new RegExp(pattern, 'gi'))].map((m) => ({ plug, at: m.index, length: m[0].length }))
  );
  return all.sort((a, b) => a.at - b.at);
}

const METRES = {
  m: 1,
  cm: 0.01,
  mm: 0.001,
  ft: 0.3048,
  feet: 0.3048,
  'in.': 0.0254,
  inch: 0.0254,
  metre: 1,
  metres: 1,
  meter: 1
};
export const LENGTH_M = new RegExp(
  String.raw`(?<![\w.,])(?<!x )(${NUMBER}) ?-?(mm|cm|m|ft|feet|inch|met(?:er|re)s?)\b(?!²| ?x| ?\/(?! ?\d))`,
  'gi'
);
/** Gives a printed length in metres; undefined where it cannot be one of a cable. */
export function metres(printed: string, unit: string): number | undefined {
  const key = unit.toLowerCase().replace(/^met.*/, 'm') as keyof typeof METRES;
  return believable(printed, METRES[key] ?? 1, 0.03, 30)[0];
}
