import type { CutSheet, CutPiece } from '#core/pads/cutting/cut';

/**
 * The cutting template as one SVG at true size: a millimetre of the drawing is a millimetre on paper. Every pad with its pieces, the
 * board with the pieces where they lie, and a bar of 50 mm to hold a ruler against.
 */
export type TemplateItem =
  | { kind: 'pad'; x: number; y: number; width: number; height: number; title: string }
  | { kind: 'band'; x1: number; y1: number; x2: number; y2: number }
  | { kind: 'piece'; x: number; y: number; width: number; height: number; text: string; size: string }
  | { kind: 'board'; x: number; y: number; width: number; height: number; title: string }
  | { kind: 'check'; x: number; y: number; length: number };

export type Template = { width: number; height: number; items: TemplateItem[] };

/** Width of a sheet of A4 less its margins, mm. */
const PAPER_MM = 182;
const GAP_MM = 8;
const TITLE_MM = 5;
/** What is drawn of a pad beside the band that comes off it, mm; its title needs some room too. */
const REST_MM = 12;
const TITLE_WIDTH_MM = 46;
export const CHECK_BAR_MM = 50;

const size = (a: number, b: number) => `${Math.round(a * 10) / 10} × ${Math.round(b * 10) / 10}`;

export function templateOf(
  sheets: readonly CutSheet[],
  pieces: readonly CutPiece[],
  board: { lengthMm: number; widthMm: number }
): Template {
  const items: TemplateItem[] = [{ kind: 'check', x: 0, y: 4, length: CHECK_BAR_MM }];
  let [x, y, row] = [0, 12, 0];
  let width = CHECK_BAR_MM;
  /** Room for something so large: beside the last thing, or on the next row. */
  const place = (w: number, h: number): { x: number; y: number } => {
    if (x > 0 && x + w > PAPER_MM) {
      x = 0;
      y += row + GAP_MM;
      row = 0;
    }
    const at = { x, y: y + TITLE_MM };
    x += Math.max(w, TITLE_WIDTH_MM) + GAP_MM;
    row = Math.max(row, h + TITLE_MM);
    width = Math.max(width, at.x + w);
    return at;
  };
  for (const sheet of sheets) {
    const length = sheet.pad.lengthMm ?? sheet.sheet.lengthMm;
    const across = sheet.pad.widthMm ?? sheet.sheet.widthMm;
    sheet.packing.sheets.forEach((packed, i) => {
      // Of the rest, which stays whole, only a strip is drawn: paper is smaller than a large pad.
      const width = Math.min(length, packed.band.lengthMm + REST_MM);
      const height = Math.min(across, packed.band.widthMm + REST_MM);
      const at = place(width, height);
      const more = sheet.packing.sheets.length > 1 ? `, pad ${i + 1} of ${sheet.packing.sheets.length}` : '';
      const cropped = width < length || height < across ? `, of ${size(length, across)} mm` : '';
      items.push({
        kind: 'pad',
        ...at,
        width,
        height,
        title: `${sheet.pad.name}, ${sheet.pad.thicknessMm} mm${cropped}${more}`
      });
      if (packed.band.lengthMm < length - 0.01)
        items.push({
          kind: 'band',
          x1: at.x + packed.band.lengthMm,
          y1: at.y,
          x2: at.x + packed.band.lengthMm,
          y2: at.y + height
        });
      else if (packed.band.widthMm < across - 0.01)
        items.push({
          kind: 'band',
          x1: at.x,
          y1: at.y + packed.band.widthMm,
          x2: at.x + width,
          y2: at.y + packed.band.widthMm
        });
      for (const piece of packed.placed)
        items.push({
          kind: 'piece',
          x: at.x + piece.xMm,
          y: at.y + piece.yMm,
          width: piece.lengthMm,
          height: piece.widthMm,
          text: sheet.pieces[piece.piece]!.label,
          size: size(piece.lengthMm, piece.widthMm)
        });
    });
  }
  for (const side of ['top', 'bottom'] as const) {
    const own = pieces.filter((piece) => piece.side === side && piece.layer === 0);
    if (own.length === 0) continue;
    const at = place(board.lengthMm, board.widthMm);
    items.push({
      kind: 'board',
      ...at,
      width: board.lengthMm,
      height: board.widthMm,
      title: side === 'top' ? 'Upper side, gold edge left' : 'Underside, seen through the board'
    });
    for (const piece of own)
      items.push({
        kind: 'piece',
        x: at.x + piece.xMm,
        y: at.y + piece.yMm,
        width: piece.lengthMm,
        height: piece.widthMm,
        text: piece.label,
        size: `${piece.pad.thicknessMm} mm`
      });
  }
  return { width: Math.ceil(width + 1), height: Math.ceil(y + row + 2), items };
}
