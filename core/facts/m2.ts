/** Heights of M.2 modules over their board, mm, by height code. Source: PCI Express M.2, component height options. */
export const M2_HEIGHT = {
  single: { top: 1.5, bottom: 0 },
  double: { top: 1.5, bottom: 1.35 }
} as const;
export const M2_BOARD_MM = 0.8;

/** Pads are sold in these thicknesses, mm. */
export const STOCK_PADS_MM = [0.5, 1, 1.5, 2, 3] as const;

/** Classes of compression (t - gap) / t, as shares; below 0 there is no contact. */
export const COMPRESSION = { marginal: 0, good: 0.1, high: 0.3, over: 0.45 } as const;
