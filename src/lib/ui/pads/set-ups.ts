import type { Library } from '#core/build/assemble';
import type { PlanInput } from '#core/plan/report';
import type { SimulateInput } from '#core/simulate/simulate';

/** What is played, and beside what: kept in the address, so that a link shows the same. */
export type Scene = {
  load: 'job' | 'soak' | 'write';
  gb: number;
  minutes: number;
  ambient: number;
  fill: number;
  start: 'idle' | 'ambient';
  rewrite: boolean;
  beside: '' | 'bare' | 'fan' | 'passive' | 'plastic' | 'aluminium' | 'edge' | 'cloth' | 'flat' | 'case' | 'ambient';
  /** Another enclosure, by its id. */
  case: string;
};

export const BESIDE: Record<Scene['beside'], string> = {
  '': 'nothing',
  bare: 'without pads',
  fan: 'with a fan',
  passive: 'without a fan',
  plastic: 'a plastic case',
  aluminium: 'an aluminium case',
  edge: 'standing on edge',
  cloth: 'lying on cloth',
  flat: 'lying on a desk',
  case: 'another enclosure',
  ambient: 'a room 10 K warmer'
};

export const usualScene = (input: PlanInput): Scene => ({
  load: input.job ? 'job' : 'soak',
  gb: 200,
  minutes: 30,
  ambient: input.job?.ambientC ?? 22,
  fill: Math.round((input.drive.fillFraction ?? 0) * 100),
  start: 'idle',
  rewrite: false,
  beside: 'bare',
  case: ''
});

const NUMBERS = { gb: [0.1, 100_000], minutes: [1, 4320], ambient: [-20, 60], fill: [0, 98] } as const;
const CHOICES = {
  load: ['job', 'soak', 'write'],
  start: ['idle', 'ambient'],
  beside: Object.keys(BESIDE) as Scene['beside'][]
} as const;

/** What is wrong with a number of a scene; undefined where nothing is. */
export function wrongIn(field: keyof typeof NUMBERS, value: number): string | undefined {
  const [low, high] = NUMBERS[field];
  return Number.isFinite(value) && value >= low && value <= high ? undefined : `${low} to ${high}`;
}

/** Reads a scene from an address; what makes no sense there is as usual. */
export function sceneFrom(query: URLSearchParams, input: PlanInput): Scene {
  const scene: Scene = { ...usualScene(input) };
  for (const field of Object.keys(NUMBERS) as (keyof typeof NUMBERS)[]) {
    const text = query.get(field);
    if (text !== null && text.trim() !== '' && wrongIn(field, Number(text)) === undefined) scene[field] = Number(text);
  }
  for (const field of Object.keys(CHOICES) as (keyof typeof CHOICES)[]) {
    const text = query.get(field);
    if (text !== null && (CHOICES[field] as readonly string[]).includes(text))
      (scene as Record<string, unknown>)[field] = text;
  }
  if (scene.load === 'job' && !input.job) scene.load = 'soak';
  scene.case = /^[0-9A-Z]{26}$/.test(query.get('case') ?? '') ? query.get('case')! : '';
  scene.rewrite = query.get('rewrite') === 'yes';
  return scene;
}

/** What differs from the usual, for the address. */
export function queryFor(scene: Scene, input: PlanInput): string {
  const usual = usualScene(input);
  const query = new URLSearchParams();
  for (const key of Object.keys(usual) as (keyof Scene)[])
    if (scene[key] !== usual[key]) query.set(key, key === 'rewrite' ? 'yes' : String(scene[key]));
  return query.toString();
}

export type SetUp = { name: string; input: SimulateInput };

/** The build of a scene as it is. */
function ownInput(scene: Scene, { job, ...build }: PlanInput): SimulateInput {
  return {
    ...build,
    ...(scene.load === 'job' && job ? { job: { ...job, ambientC: scene.ambient } } : {}),
    seconds: scene.minutes * 60,
    ambientC: scene.ambient,
    fillFraction: scene.fill / 100,
    start: scene.start,
    ...(scene.load === 'write' ? { writeGB: scene.gb } : {}),
    ...(scene.rewrite ? { rewrite: true } : {})
  };
}

/** How much warmer the other room is, K. */
const WARMER_K = 10;

type Cases = Pick<Library, 'enclosure'>;
/** What is changed for the set-up beside; undefined where it would be the same. */
type Beside = (scene: Scene, base: SimulateInput, library: Cases) => SetUp | undefined;

const changed = (name: string, base: SimulateInput, change: Partial<SimulateInput>): SetUp => ({
  name,
  input: { ...base, ...change }
});
const standing =
  (stands: 'edge' | 'cloth' | 'flat'): Beside =>
  (_scene, base) =>
    stands === (base.enclosure.cooling?.stands ?? 'flat') ? undefined : changed(BESIDE[stands], base, { stands });
const ofMaterial =
  (material: 'plastic' | 'aluminium'): Beside =>
  (_scene, base) =>
    material === (base.enclosure.cooling?.material ?? 'aluminium')
      ? undefined
      : changed(`as ${material}`, base, { material });

const BESIDES: Partial<Record<Scene['beside'], Beside>> = {
  bare: (_scene, base) => changed('without pads', base, { bare: true }),
  fan: (_scene, base) => changed('with a fan', base, { fan: true }),
  passive: (_scene, base) => changed('without a fan', base, { fan: false }),
  edge: standing('edge'),
  cloth: standing('cloth'),
  flat: standing('flat'),
  plastic: ofMaterial('plastic'),
  aluminium: ofMaterial('aluminium'),
  ambient: ({ ambient }, base) => {
    const ambientC = ambient + WARMER_K;
    const job = base.job ? { job: { ...base.job, ambientC } } : {};
    return changed(`at ${ambientC} °C`, base, { ambientC, ...job });
  },
  case: (scene, base, library) => {
    const enclosure = library.enclosure.get(scene.case);
    // Pads were settled for this case; in another one they are chosen anew.
    const { stack: _, ...rest } = base;
    return enclosure && { name: enclosure.name, input: { ...rest, enclosure } };
  }
};

/** Gives the one or two set-ups of a scene. */
export function setUpsOf(scene: Scene, input: PlanInput, library: Cases): SetUp[] {
  const base = ownInput(scene, input);
  const own: SetUp = { name: input.enclosure.name, input: base };
  const beside = BESIDES[scene.beside]?.(scene, base, library);
  return beside ? [own, beside] : [own];
}
