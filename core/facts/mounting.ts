/**
 * How an M.2 module goes into its socket: the angle at which it is put in, degrees, and how much of the board the socket takes, mm.
 * Source: PCI Express M.2, connector insertion; the angle as makers of boards give it.
 */
export const M2_INSERTION = { angleDeg: { low: 15, typical: 20, high: 30 }, seatMm: 4 } as const;

/**
 * Notches of the gold edge of an M.2 module: how far the middle of each lies from the middle of the edge, mm, its width and its depth.
 * Source: PCI Express M.2: 75 places 0.5 mm apart on each face and set off by half of that, so place n lies (38 - n) * 0.25 mm from
 * the middle. Key B stands for places 12 to 19, the middle (38 - 15.5) * 0.25 = 5.625; key M for 59 to 66, (38 - 62.5) * 0.25 = -6.125.
 */
export const M2_NOTCHES = {
  offsetMm: { B: 5.625, M: -6.125 },
  widthMm: 1.2,
  depthMm: 3.5,
  /** The tongue that goes into the socket, mm. */
  edgeMm: 19.85
} as const;

type Disk = {
  lengthMm: number;
  widthMm: number;
  /** Holes of the underside: how far from the end with the connector, and from the long edge, mm. */
  holes: readonly { xMm: number; yMm: number }[];
  screw: string;
};

/**
 * Sizes of disks and where their four holes lie, from the end with the connector. Sources: SFF-8201 and SFF-8223 (2.5 inch, M3), SFF-8301 and
 * SFF-8323 (3.5 inch, 6-32 UNC).
 */
export const DISK_SIZES: Record<'2.5in' | '3.5in', Disk> = {
  '2.5in': {
    lengthMm: 100.2,
    widthMm: 69.85,
    holes: [
      { xMm: 14, yMm: 4.07 },
      { xMm: 90.6, yMm: 4.07 },
      { xMm: 14, yMm: 65.79 },
      { xMm: 90.6, yMm: 65.79 }
    ],
    screw: 'M3, 3 to 4 mm long'
  },
  '3.5in': {
    lengthMm: 147,
    widthMm: 101.6,
    holes: [
      { xMm: 41.28, yMm: 3.18 },
      { xMm: 85.73, yMm: 3.18 },
      { xMm: 41.28, yMm: 98.43 },
      { xMm: 85.73, yMm: 98.43 }
    ],
    screw: '6-32 UNC, at most 6 mm long'
  }
};

/** Usual thickness of a 2.5-inch drive where none is stated, mm: a solid-state drive, a disk. */
export const THIN_25_MM = 7;
/** What a bay of 2.5 inch takes where it states nothing, mm. */
export const BAY_25_MM = 9.5;
