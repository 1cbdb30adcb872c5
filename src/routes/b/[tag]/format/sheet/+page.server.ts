import { codeOf } from '$lib/server/pages/labels';

export async function load({ parent, url }) {
  const { build } = await parent();
  const address = `${url.origin}/b/${build.tag}/format/sheet`;
  return { address, code: await codeOf(address) };
}
