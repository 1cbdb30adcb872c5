import { ask } from './api';

type Named = { id: string; tag: string; name: string };

/** Looks for builds of a crate by words in their tags and names. @returns undefined where there was no answer */
export const buildsIn =
  (crateId: string) =>
  async (words: string): Promise<readonly Named[] | undefined> => {
    const query = new URLSearchParams({ find: words.slice(0, 200) });
    const answer = await ask<{ builds: Named[] }>(`/api/crates/${crateId}/build-names?${query}`);
    return answer.ok ? answer.data.builds : undefined;
  };
