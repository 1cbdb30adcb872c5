import type { Entry, TickState } from '#core/sheets/progress';
import type { SheetAnswer } from '#core/sheets/sheet';

/** A photograph on a step. */
export type SheetPhoto = {
  id: string;
  version: number;
  stepId?: string | undefined;
  unitId?: string | undefined;
  name: string;
  addedAt: string;
};

/** An item of a batch: what its tag says. */
export type SheetItem = { id: string; tag: string };

/** Everything that can be done on a sheet, and how it stands: what the parts of the page are given. */
export type SheetActs = {
  items: readonly SheetItem[];
  entries: readonly Entry[];
  photos: readonly SheetPhoto[];
  photoBase: string;
  busy: boolean;
  markOf: (stepId: string, unitId?: string) => TickState | undefined;
  tick: (stepId: string, unitId: string | undefined, done: boolean) => void;
  note: (stepId: string, note: string) => void;
  say: (stepId: string, note: string) => void;
  answer: (answer: SheetAnswer) => void;
  photograph: (stepId: string, unitId: string | undefined, file: File) => void;
  removeNote: (key: string) => void;
  removePhoto: (photo: SheetPhoto) => void;
  /** Where a step is done that another page has the tool for. */
  seeHref?: (see: 'guard' | 'ladder' | 'record' | 'on-it' | 'plan') => string;
};
