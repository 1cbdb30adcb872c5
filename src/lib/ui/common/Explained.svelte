<script lang="ts">
  import { splitTerms } from '#core/facts/glossary';
  import Term from './Term.svelte';

  /** A text whose terms explain themselves, each at its first use. */
  let { text }: { text: string } = $props();
</script>

{#each splitTerms(text) as piece, i (i)}{#if piece.term}<Term
      text={piece.text}
      term={piece.term}
    />{:else}{piece.text}{/if}{/each}
