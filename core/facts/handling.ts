/**
 * Minutes that the steps of a run sheet take for one item, low, typical and high, by what is done; what is not named takes `usual`. Estimates
 * from doing it, slowly and for the first time at the high end.
 */
export const STEP_MINUTES = {
  usual: [0.3, 0.7, 1.5],
  'count-kit': [1, 2, 4],
  'tag-parts': [0.5, 1, 2],
  photograph: [0.5, 1, 2],
  'open-case': [0.5, 1.5, 4],
  'remove-heatsink': [3, 8, 20],
  'remove-label': [2, 4, 10],
  'cut-pads': [3, 6, 15],
  'dry-fit': [1, 2, 4],
  'check-imprint': [1, 1.5, 3],
  'place-pad': [0.5, 1, 3],
  'insert-slanted': [0.3, 0.8, 2],
  'start-screws': [1, 2, 4],
  'fasten-crosswise': [0.7, 1.5, 3],
  'fasten-lid': [0.7, 1.5, 3],
  'check-health': [3, 5, 10],
  'scan-surface': [2, 3, 5],
  'save-data': [2, 3, 5],
  'ease-clips': [3, 8, 20],
  'lift-out': [1, 3, 8],
  'look-for-it': [0.5, 1, 3],
  'look-at-it': [1, 3, 15],
  'check-copies': [1, 3, 15],
  'show-devices': [0.5, 1, 3],
  'compare-serial': [0.5, 1, 3],
  'ask-the-guard': [1, 2, 5],
  erase: [0.5, 1, 3],
  'make-volumes': [1, 3, 8],
  encrypt: [1, 3, 10],
  'write-and-read': [1, 2, 5],
  'write-it-down': [0.5, 1, 2]
} as const satisfies Record<string, readonly [number, number, number]>;
