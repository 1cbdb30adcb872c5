<script lang="ts">
  import type { Kind } from '#core/parts/kinds';

  /** A kind of which there is no part yet. */
  let { label, home, kind }: { label: { one: string; many: string }; home: string; kind: Kind } = $props();
</script>

<div class="empty">
  <h2>No {label.many.toLowerCase()} yet</h2>
  <p>
    What the box says is enough. What is left empty is filled with typical values for the class, and every such value is
    named in the plan.
  </p>
  <p>
    <a href="{home}/{kind}/new">Add the first {label.one}</a>, or <a href="{home}/paste">paste what is on its box</a>.
  </p>
</div>
