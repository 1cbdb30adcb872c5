/**
 * Heights of chips over each face of an M.2 board, mm, by the height code of the module. Source: PCI Express M.2, component
 * height options.
 */
export const M2_HEIGHT_CODES = {
  S1: { top: 1.2, bottom: 0 },
  S2: { top: 1.35, bottom: 0 },
  S3: { top: 1.5, bottom: 0 },
  D1: { top: 1.2, bottom: 1.35 },
  D2: { top: 1.35, bottom: 1.35 },
  D3: { top: 1.5, bottom: 1.35 },
  D4: { top: 1.5, bottom: 0.7 },
  D5: { top: 1.5, bottom: 1.5 }
} as const;
export type M2HeightCode = keyof typeof M2_HEIGHT_CODES;

/** The code that is taken where none is stated: the tallest of the common ones, so that a lid surely closes. */
export const USUAL_HEIGHT_CODE = { single: 'S3', double: 'D3' } as const;

export const M2_BOARD_MM = 0.8;
/** A label takes this much of the gap over the chips under it, mm: 0.06 to 0.1. */
export const LABEL_MM = 0.08;
/** The length that is taken where none is stated. */
export const USUAL_LENGTH_MM = 80;
export const M2_WIDTH_MM = 22;
/** The gold edge goes into the socket to here, mm from its end; nothing stands or sticks there. */
export const M2_CONNECTOR_MM = 4;
/** Half round for the screw in the far end, with the ring around it, mm. */
export const M2_NOTCH_RADIUS_MM = 2.75;
/** A pad stays this far from the edge of the board, mm. */
export const PAD_EDGE_MM = 1;

/** Pads are sold in these thicknesses, mm. */
export const STOCK_PADS_MM = [0.5, 1, 1.5, 2, 3] as const;

/** Classes of compression (t - gap) / t, as shares; below 0 there is no contact. */
export const COMPRESSION = { marginal: 0, good: 0.1, high: 0.3, over: 0.45 } as const;

type ChipPlace = {
  role: 'controller' | 'nand' | 'dram' | 'power';
  xMm: number;
  yMm: number;
  lengthMm: number;
  widthMm: number;
};

/**
 * Where the chips usually sit, by length of the module: x from the gold edge, y from the left edge. Estimates for pads and areas
 * where a drive states nothing; the screw notch and the gold edge stay free.
 */
export const M2_LAYOUTS: Record<30 | 42 | 60 | 80 | 110, { top: readonly ChipPlace[]; bottom: readonly ChipPlace[] }> =
  {
    30: {
      top: [
        { role: 'controller', xMm: 5.5, yMm: 5.5, lengthMm: 8, widthMm: 11 },
        { role: 'nand', xMm: 15, yMm: 4, lengthMm: 11, widthMm: 14 }
      ],
      bottom: [{ role: 'nand', xMm: 13, yMm: 4, lengthMm: 12, widthMm: 14 }]
    },
    42: {
      top: [
        { role: 'controller', xMm: 6.5, yMm: 5, lengthMm: 11, widthMm: 12 },
        { role: 'nand', xMm: 20, yMm: 4, lengthMm: 16, widthMm: 14 }
      ],
      bottom: [{ role: 'nand', xMm: 20, yMm: 4, lengthMm: 16, widthMm: 14 }]
    },
    60: {
      top: [
        { role: 'controller', xMm: 9, yMm: 5, lengthMm: 12, widthMm: 12 },
        { role: 'nand', xMm: 24, yMm: 4, lengthMm: 13, widthMm: 14 },
        { role: 'nand', xMm: 40, yMm: 4, lengthMm: 13, widthMm: 14 }
      ],
      bottom: [
        { role: 'nand', xMm: 24, yMm: 4, lengthMm: 13, widthMm: 14 },
        { role: 'nand', xMm: 40, yMm: 4, lengthMm: 13, widthMm: 14 }
      ]
    },
    80: {
      top: [
        { role: 'power', xMm: 6.5, yMm: 5, lengthMm: 5, widthMm: 6 },
        { role: 'controller', xMm: 15, yMm: 5, lengthMm: 13, widthMm: 12 },
        { role: 'dram', xMm: 31, yMm: 6, lengthMm: 8, widthMm: 10 },
        { role: 'nand', xMm: 42, yMm: 4, lengthMm: 14, widthMm: 14 },
        { role: 'nand', xMm: 59, yMm: 4, lengthMm: 14, widthMm: 14 }
      ],
      bottom: [
        { role: 'nand', xMm: 42, yMm: 4, lengthMm: 14, widthMm: 14 },
        { role: 'nand', xMm: 59, yMm: 4, lengthMm: 14, widthMm: 14 }
      ]
    },
    110: {
      top: [
        { role: 'power', xMm: 7, yMm: 5, lengthMm: 6, widthMm: 8 },
        { role: 'controller', xMm: 18, yMm: 4, lengthMm: 15, widthMm: 14 },
        { role: 'dram', xMm: 37, yMm: 5, lengthMm: 9, widthMm: 12 },
        { role: 'nand', xMm: 50, yMm: 4, lengthMm: 18, widthMm: 14 },
        { role: 'nand', xMm: 72, yMm: 4, lengthMm: 18, widthMm: 14 }
      ],
      bottom: [
        { role: 'nand', xMm: 50, yMm: 4, lengthMm: 18, widthMm: 14 },
        { role: 'nand', xMm: 72, yMm: 4, lengthMm: 18, widthMm: 14 }
      ]
    }
  };

/**
 * How hard pads press, and what presses back. Stress at 30 % compression by hardness, N/mm²; it grows with compression to the
 * power of 1.5. Estimates.
 */
export const PAD_STRESS_MPA = { 20: 0.05, 40: 0.15, 60: 0.4 } as const;
/** Hardness that is taken where a pad states none, Shore 00. */
export const USUAL_SHORE = 45;
/** Stiffness of an unsupported 80 mm board pressed in the middle, N/mm; with the cube of the length for others. Estimate. */
export const BOARD_STIFFNESS = { low: 3, typical: 5, high: 7.5 } as const;
export const BOARD_LIMITS = { bowMm: 0.5, stressMPa: 0.35, relaxed: 0.5 } as const;
