import sharp from 'sharp';

/** Photographs of the demo, drawn here: nobody’s label, nobody’s table. */

const CLOTH = `<rect width="800" height="600" fill="#6d675f"/><g stroke="#77716a" stroke-width="2">${Array.from(
  { length: 40 },
  (_, i) => `<path d="M0 ${i * 15}h800M${i * 20} 0v600"/>`
).join('')}</g>`;

/** A label with a name, a serial number and a code of bars. */
function label(name: string, serial: string): string {
  const bars = Array.from({ length: 46 }, (_, i) => {
    const width = 2 + ((serial.charCodeAt(i % serial.length) + i * 7) % 4);
    return `<rect x="${i * 7}" width="${width}" height="44" fill="#222"/>`;
  }).join('');
  return `${CLOTH}<g transform="translate(90 180) rotate(-3)">
    <rect width="620" height="172" rx="4" fill="#1f3d35"/><rect x="22" y="14" width="560" height="144" rx="3" fill="#f1eee7"/>
    <text x="40" y="58" font-family="sans-serif" font-size="34" font-weight="700" fill="#222">${name}</text>
    <text x="40" y="92" font-family="monospace" font-size="22" fill="#222">S/N ${serial}</text>
    <g transform="translate(40 102)">${bars}</g>
    ${Array.from({ length: 20 }, (_, i) => `<rect x="2" y="${10 + i * 7.6}" width="14" height="4" fill="#d8b25c"/>`).join('')}
  </g>`;
}

/** A pad with the print of chips in it, even or not. */
function imprint(even: boolean): string {
  const print = (x: number, w: number, dark: string) =>
    `<rect x="${x}" y="30" width="${w}" height="110" rx="3" fill="${dark}" opacity="0.55"/>`;
  return `${CLOTH}<g transform="translate(120 200) rotate(2)">
    <rect width="560" height="170" rx="6" fill="#8ea3ad"/>
    ${print(40, 120, '#566a74')}${print(210, 130, '#566a74')}${print(380, 130, even ? '#566a74' : '#829aa5')}
  </g>`;
}

export type Picture = { kind: 'label'; name: string; serial: string } | { kind: 'imprint'; even: boolean };

/** Draws a photograph as a JPEG with nothing beside the picture. */
export function drawn(picture: Picture): Promise<Buffer> {
  const inside = picture.kind === 'label' ? label(picture.name, picture.serial) : imprint(picture.even);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="600">${inside}</svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 78 }).toBuffer();
}
