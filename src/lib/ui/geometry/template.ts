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

/** Places things on paper, one beside the other, and on the next row where there is no room, mm. */
class Paper {
  #x = 0;
  #y = 12;
  #row = 0;
  width = CHECK_BAR_MM;

  place(w: number, h: number): { x: number; y: number } {
    if (this.#x > 0 && this.#x + w > PAPER_MM) {
      this.#x = 0;
      this.#y += this.#row + GAP_MM;
      this.#row = 0;
    }
    const at = { x: this.#x, y: this.#y + TITLE_MM };
    this.#x += Math.max(w, TITLE_WIDTH_MM) + GAP_MM;
    this.#row = Math.max(this.#row, h + TITLE_MM);
    this.width = Math.max(this.width, at.x + w);
    return at;
  }

  get height(): number {
    return this.#y + this.#row;
  }
}

type PackedPad = CutSheet['packing']['sheets'][number];
/** The pad of a cut sheet as it is drawn: of the rest, which stays whole, only a strip, for paper is smaller than a large pad. */
type Drawn = { x: number; y: number; width: number; height: number; length: number; across: number };

/** Draws the line at which the band comes off the pad. */
function bandItems({ band }: PackedPad, { x, y, width, height, length, across }: Drawn): TemplateItem[] {
  if (band.lengthMm < length - 0.01)
    return [{ kind: 'band', x1: x + band.lengthMm, y1: y, x2: x + band.lengthMm, y2: y + height }];
  return band.widthMm < across - 0.01
    ? [{ kind: 'band', x1: x, y1: y + band.widthMm, x2: x + width, y2: y + band.widthMm }]
    : [];
}

/** Draws one pad with its pieces. */
function padItems(sheet: CutSheet, packed: PackedPad, i: number, paper: Paper): TemplateItem[] {
  const length = sheet.pad.lengthMm ?? sheet.sheet.lengthMm;
  const across = sheet.pad.widthMm ?? sheet.sheet.widthMm;
  const width = Math.min(length, packed.band.lengthMm + REST_MM);
  const height = Math.min(across, packed.band.widthMm + REST_MM);
  const at = paper.place(width, height);
  const count = sheet.packing.sheets.length;
  const more = count > 1 ? `, pad ${i + 1} of ${count}` : '';
  const cropped = width < length || height < across ? `, of ${size(length, across)} mm` : '';
  const title = `${sheet.pad.name}, ${sheet.pad.thicknessMm} mm${cropped}${more}`;
  return [
    { kind: 'pad', ...at, width, height, title },
    ...bandItems(packed, { ...at, width, height, length, across }),
    ...packed.placed.map((piece): TemplateItem => ({
      kind: 'piece',
      x: at.x + piece.xMm,
      y: at.y + piece.yMm,
      width: piece.lengthMm,
      height: piece.widthMm,
      text: sheet.pieces[piece.piece]!.label,
      size: size(piece.lengthMm, piece.widthMm)
    }))
  ];
}

type BoardSize = { lengthMm: number; widthMm: number };

/** Draws one side of the board with its pieces where they go. */
function boardItems(
  side: 'top' | 'bottom',
  pieces: readonly CutPiece[],
  board: BoardSize,
  paper: Paper
): TemplateItem[] {
  const own = pieces.filter((piece) => piece.side === side && piece.layer === 0);
  if (own.length === 0) return [];
  const at = paper.place(board.lengthMm, board.widthMm);
  const title = side === 'top' ? 'Upper side, gold edge left' : 'Underside, seen through the board';
  return [
    { kind: 'board', ...at, width: board.lengthMm, height: board.widthMm, title },
    ...own.map((piece): TemplateItem => ({
      kind: 'piece',
      x: at.x + piece.xMm,
      y: at.y + piece.yMm,
      width: piece.lengthMm,
      height: piece.widthMm,
      text: piece.label,
      size: `${piece.pad.thicknessMm} mm`
    }))
  ];
}

/** Lays a cutting template out on paper, 1 : 1, mm: a bar to check the print by, pads with their pieces, and the board. */
export function templateOf(sheets: readonly CutSheet[], pieces: readonly CutPiece[], board: BoardSize): Template {
  const paper = new Paper();
  const items: TemplateItem[] = [
    { kind: 'check', x: 0, y: 4, length: CHECK_BAR_MM },
    ...sheets.flatMap((sheet) => sheet.packing.sheets.flatMap((packed, i) => padItems(sheet, packed, i, paper))),
    ...(['top', 'bottom'] as const).flatMap((side) => boardItems(side, pieces, board, paper))
  ];
  return { width: Math.ceil(paper.width + 1), height: Math.ceil(paper.height + 2), items };
}
