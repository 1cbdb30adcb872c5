<script lang="ts">
  import { createRawSnippet, getAllContexts, hydrate, mount, unmount, type Snippet } from 'svelte';
  import { comesToLife, inTurn } from './in-turn';
  import PieceBody from './PieceBody.svelte';

  /**
   * A piece of a page that comes to life in a task of its own: a large page all at once would be one long task in which nobody is
   * heard. Until then it stands there as the server wrote it. Afterwards it has a life of its own: what it shows only sometimes is
   * asked inside it, for it may be told of a change before what stands around it.
   */
  let { children }: { children: Snippet } = $props();
  const context = getAllContexts();
  const ALL = 'display: contents';

  const later = createRawSnippet(() => ({
    render: () => `<div style="${ALL}"></div>`,
    setup(element) {
      const options = {
        target: element,
        context,
        props: {
          get children() {
            return children;
          }
        }
      };
      let body: ReturnType<typeof mount> | undefined;
      const begin = () => {
        // What the server did not write is made at once: it stands where a place was kept for nothing.
        body = element.firstChild ? hydrate(PieceBody, options) : mount(PieceBody, options);
      };
      const leave = element.firstChild ? inTurn(begin, element) : begin();
      return () => {
        leave?.();
        if (body) void unmount(body);
      };
    }
  }));
  const piece = comesToLife() ? later : whole;
</script>

{#snippet whole()}
  <div style={ALL}><svelte:boundary><PieceBody {children} /></svelte:boundary></div>
{/snippet}
{@render piece()}
