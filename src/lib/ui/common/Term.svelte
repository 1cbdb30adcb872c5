<script lang="ts">
  import type { Term } from '#core/facts/glossary';

  /** A word that explains itself when it is pressed. `mark` shows a question mark in its place, beside a label. */
  let { text, term, mark = false }: { text: string; term: Term; mark?: boolean } = $props();
  const uid = $props.id();
  let word = $state<HTMLElement>();
  let note = $state<HTMLElement>();
  /** Closed, it is no part of the text it stands in. */
  let open = $state(false);

  /** Below its word, or above it where there is no room; never over the edge of the window. */
  function place(event: ToggleEvent): void {
    if (event.newState !== 'open' || !word || !note) return;
    const at = word.getBoundingClientRect();
    const { offsetWidth: width, offsetHeight: height } = note;
    const above = at.bottom + height + 8 > innerHeight && at.top > height + 8;
    note.style.left = `${Math.max(8, Math.min(at.left, innerWidth - width - 8))}px`;
    note.style.top = `${above ? at.top - height - 6 : at.bottom + 6}px`;
  }
</script>

<button
  type="button"
  class={mark ? 'mark' : 'term'}
  popovertarget="term-{uid}"
  aria-label={mark ? `Explain ${text}` : undefined}
  bind:this={word}>{mark ? '?' : text}</button
><span
  popover
  id="term-{uid}"
  role="note"
  bind:this={note}
  onbeforetoggle={(e) => (open = e.newState === 'open')}
  ontoggle={place}
  >{#if open}<strong>{term.term}</strong>{#if term.also}<span class="also">&ensp;also {term.also.join(', ')}</span
      >{/if}<br />{term.means}{/if}</span
>

<style>
  button {
    padding: 0;
    border: 0;
    background: none;
    color: inherit;
    font: inherit;
    text-align: inherit;
    cursor: help;
  }
  .term {
    text-decoration: underline dotted var(--ash-edge);
    text-underline-offset: 3px;
  }
  .mark {
    width: 18px;
    height: 18px;
    border: 1px solid var(--ash-edge);
    border-radius: 50%;
    color: var(--ash-soft);
    font-size: 11px;
    line-height: 1;
    text-align: center;
  }
  [popover] {
    inset: auto;
    max-width: min(22rem, calc(100vw - 16px));
    margin: 0;
    padding: 10px 12px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: var(--ash-ink);
    font: 400 var(--ash-text-small) / 1.45 var(--ash-font);
    text-align: left;
    white-space: normal;
  }
  .also {
    color: var(--ash-soft);
  }
  @media print {
    .mark {
      display: none;
    }
    .term {
      text-decoration: none;
    }
  }
</style>
