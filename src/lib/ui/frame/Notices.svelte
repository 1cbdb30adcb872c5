<script lang="ts">
  import { notices } from './notices.svelte';
</script>

<div class="notices no-print" role="status" aria-live="polite">
  {#each notices.list as notice (notice.id)}
    <div class="notice {notice.kind}">
      <div class="words">
        <p>{notice.text}</p>
        {#if notice.links}
          <p>
            {#each notice.links as link (link.href + link.label)}
              <a href={link.href} onclick={() => notices.remove(notice.id)}>Show {link.label}</a>
            {/each}
          </p>
        {/if}
      </div>
      {#if notice.action}
        {@const action = notice.action}
        <button
          type="button"
          onclick={() => {
            notices.remove(notice.id);
            action.run();
          }}>{action.label}</button
        >
      {/if}
      <button type="button" class="close" aria-label="Close this message" onclick={() => notices.remove(notice.id)}
        >×</button
      >
    </div>
  {/each}
</div>

<style>
  .notices {
    position: fixed;
    right: 16px;
    bottom: 16px;
    z-index: 9000;
    display: grid;
    gap: 8px;
    width: min(420px, calc(100vw - 32px));
  }
  .notice {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 10px 12px;
    background: var(--ash-ink);
    color: var(--ash-paper);
    border-left: 4px solid var(--ash-band);
  }
  .error {
    background: var(--ash-sheet);
    color: var(--ash-ink);
    border: 1px solid var(--ash-fail);
    border-left-width: 4px;
  }
  .words {
    flex: 1;
  }
  a {
    color: inherit;
    margin-right: 8px;
  }
  button {
    padding: 4px 8px;
    border: 1px solid currentColor;
    background: none;
    color: inherit;
    font-weight: 600;
    cursor: pointer;
  }
  .close {
    border: 0;
    font-size: 18px;
    line-height: 1;
  }
</style>
