import { formFields } from '#core/parts/form/form-fields';
import type { Field } from '#core/parts/form/form';
import { MODEL_SCHEMAS } from '#core/parts/model';
import { jobSchema } from '#core/parts/job';
import { portSchema } from '#core/parts/host';
import { figure } from '#core/quantities/format';
import type { PlanReport } from '#core/plan/report';

type Assumed = PlanReport['assumed'][number];

const SCHEMAS = {
  drive: MODEL_SCHEMAS.drive,
  enclosure: MODEL_SCHEMAS.enclosure,
  cable: MODEL_SCHEMAS.cable,
  pad: MODEL_SCHEMAS.pad,
  host: MODEL_SCHEMAS.host,
  job: jobSchema,
  port: portSchema
} as const;
const known = new Map<Assumed['part'], Field[]>();

/** Finds the field of a form by its path, such as `cooling.areaCm2`. */
function fieldAt(part: Assumed['part'], path: string): Field | undefined {
  let fields = known.get(part);
  if (!fields) known.set(part, (fields = formFields(SCHEMAS[part])));
  let field: Field | undefined;
  for (const key of path.split('.')) {
    field = fields?.find((f) => f.key === key);
    fields = field && 'fields' in field ? field.fields : undefined;
  }
  return field;
}

const PART_WORD: Partial<Record<Assumed['part'], string>> = { host: 'computer', pad: 'pads' };
/** What is no field of a form, in words. */
const OTHER: Record<string, string> = {
  'pad contact': 'contact',
  'pad stack': 'pieces',
  'drive fillFraction': 'filled'
};

/** Says an assumed value as the form names it: part, label, value with its unit, and where it comes from; two fields may share a label, never a key. */
// eslint-disable-next-line complexity -- one line for each kind of value
export function assumedWords({ part, field, value, from }: Assumed): {
  key: string;
  what: string;
  value: string;
  from: string;
} {
  const key = `${part} ${field}`;
  const found = fieldAt(part, field);
  const title = OTHER[key] ?? found?.title ?? field;
  const what = `${PART_WORD[part] ?? part}, ${title.charAt(0).toLowerCase() === title.charAt(0) || /^[A-Z]{2}|^M\.2|^PCIe/.test(title) ? title : title.charAt(0).toLowerCase() + title.slice(1)}`;
  if (field === 'fillFraction') return { key, what, value: `${figure(Number(value) * 100)}\u202f%`, from };
  const options = found && 'options' in found ? found.options : undefined;
  const label = options?.find((option) => option.value === value)?.label;
  const unit = found && 'unit' in found && found.unit ? `\u202f${found.unit}` : '';
  const said =
    typeof value === 'number'
      ? `${figure(value)}${unit}`
      : typeof value === 'boolean'
        ? value
          ? 'yes'
          : 'no'
        : (label ?? value);
  return { key, what, value: said, from };
}

/** Which group of figures a figure belongs to, as the report names what rests on assumed values. */
const GROUP: readonly [RegExp, string][] = [
  [/^link\./, 'link'],
  [/^(throughput\.read|reachable\.read)/, 'read'],
  [/^(throughput\.write|reachable\.write)/, 'write'],
  [/^throughput\.sustained/, 'sustained'],
  [/^throughput\.random/, 'random'],
  [/^cache\./, 'cache'],
  [/^job\./, 'job'],
  [/^thermal\./, 'heat'],
  [/^power\./, 'power'],
  [/^stack\./, 'pads'],
  [/^(filesystem|capacity)\./, 'filesystem']
];

/** Picks what was assumed for one figure; of a stage of the lane, what was assumed of its part. */
export function assumedFor(report: PlanReport, figureKey: string): Assumed[] {
  const part = { port: 'port', cable: 'cable', bridge: 'enclosure', slot: 'enclosure', drive: 'drive' }[
    figureKey.replace('stage.', '')
  ];
  const rates = ['link', 'read', 'write'];
  if (part) return report.assumed.filter((a) => a.part === part && a.figures.some((group) => rates.includes(group)));
  const group = GROUP.find(([pattern]) => pattern.test(figureKey))?.[1];
  return group === undefined ? [] : report.assumed.filter((a) => a.figures.includes(group));
}
