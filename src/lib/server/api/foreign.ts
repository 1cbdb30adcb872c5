import { Problem } from '../problems/problem';

type Asked = {
  method: string;
  path: string;
  origin: string | null;
  site: string | null;
  mode: string | null;
  dest: string | null;
};

/**
 * Whether a request was sent by a page of another site, as browsers tell it. Such a page may lead a person here, to a page: a copied
 * link, a scanned code. Everything else it must not do: neither write, nor ask the API, nor fetch or embed what is here.
 * @param own the origin under which this is served
 */
export function isForeign(asked: Asked, own: string): boolean {
  const { method, path, origin, site, mode, dest } = asked;
  const reads = method === 'GET' || method === 'HEAD';
  if (origin !== null && origin !== own) return true;
  if (site === null || site === 'same-origin' || site === 'none') return false;
  const led = reads && mode === 'navigate' && dest === 'document' && !path.startsWith('/api/');
  return !led;
}

export const FOREIGN = new Problem('foreign-origin', 'Requests from other sites are refused.');
