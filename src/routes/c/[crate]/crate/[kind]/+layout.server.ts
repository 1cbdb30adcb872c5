import { error } from '@sveltejs/kit';
import { isKind } from '#core/parts/kinds';

export function load({ params }) {
  if (!isKind(params.kind)) error(404, 'There is no such kind of part.');
  return { kind: params.kind };
}
