import { CONDITION_FIELDS, type Conditions } from './conditions.ts';
import { PROTOCOL_LABEL } from './newest.ts';
import type { ProtocolId } from './protocol-ids.ts';

type Compared = {
  protocol: ProtocolId;
  simulated: boolean;
  conditions: Conditions;
  chain: { host: string; port: string; cable?: string | undefined; enclosure: string; drive: string; os: string };
};
const CHAIN = [
  ['host', 'the computer'],
  ['port', 'the port'],
  ['cable', 'the cable'],
  ['enclosure', 'the enclosure'],
  ['drive', 'the drive'],
  ['os', 'the system']
] as const;
const OTHERS = [
  ['filesystem', 'the filesystem'],
  ['testGB', 'the size of the test'],
  ['repeats', 'the repeats']
] as const;

/**
 * Lists what differs between two runs beside their figures, in words: more than one thing, and they are not like for like. What only one of them says
 * counts as different, for nobody knows.
 * @example differingConditions.length // 2
 */
export function differingConditions(one: Compared, other: Compared): string[] {
  const differs: string[] = [];
  if (one.protocol !== other.protocol)
    differs.push(`how it was measured (${PROTOCOL_LABEL[one.protocol]}, ${PROTOCOL_LABEL[other.protocol]})`);
  if (one.simulated !== other.simulated) differs.push('one of them is simulated');
  for (const [key, word] of CHAIN) if (one.chain[key] !== other.chain[key]) differs.push(word);
  const ids = (run: Compared) => [...(run.conditions.unitIds ?? [])].sort().join();
  if (ids(one) !== ids(other)) differs.push('the very items');
  for (const [key, word] of OTHERS) if (one.conditions[key] !== other.conditions[key]) differs.push(word);
  for (const { id, label } of CONDITION_FIELDS)
    if (one.conditions[id] !== other.conditions[id]) differs.push(label.charAt(0).toLowerCase() + label.slice(1));
  return differs;
}
