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

/** The one or two set-ups of a scene. */
export function setUpsOf(scene: Scene, input: PlanInput, library: Pick<Library, 'enclosure'>): SetUp[] {
  const { job, ...build } = input;
  const base: SimulateInput = {
    ...build,
    ...(scene.load === 'job' && job ? { job: { ...job, ambientC: scene.ambient } } : {}),
    seconds: scene.minutes * 60,
    ambientC: scene.ambient,
    fillFraction: scene.fill / 100,
    start: scene.start,
    ...(scene.load === 'write' ? { writeGB: scene.gb } : {}),
    ...(scene.rewrite ? { rewrite: true } : {})
  };
  const own: SetUp = { name: input.enclosure.name, input: base };
  const other = (name: string, change: Partial<SimulateInput>): SetUp[] => [
    own,
    { name, input: { ...base, ...change } }
  ];
  const { cooling } = input.enclosure;
  switch (scene.beside) {
    case 'bare':
      return other('without pads', { bare: true });
    case 'fan':
      return other('with a fan', { fan: true });
    case 'passive':
      return other('without a fan', { fan: false });
    case 'edge':
    case 'cloth':
    case 'flat':
      return scene.beside === (cooling?.stands ?? 'flat')
        ? [own]
        : other(BESIDE[scene.beside], { stands: scene.beside });
    case 'plastic':
    case 'aluminium':
      return (cooling?.material ?? 'aluminium') === scene.beside
        ? [own]
        : other(`as ${scene.beside}`, { material: scene.beside });
    case 'ambient':
      return other(`at ${scene.ambient + 10} °C`, {
        ambientC: scene.ambient + 10,
        ...(base.job ? { job: { ...base.job, ambientC: scene.ambient + 10 } } : {})
      });
    case 'case': {
      const enclosure = library.enclosure.get(scene.case);
      if (!enclosure) return [own];
      // Pads were settled for this case; in another one they are chosen anew.
      const { stack: _, ...rest } = base;
      return [own, { name: enclosure.name, input: { ...rest, enclosure } }];
    }
    default:
      return [own];
  }
}
