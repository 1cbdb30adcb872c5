<script lang="ts">
  let night = $state(false);

  $effect(() => {
    night = document.documentElement.getAttribute('theme') === 'g100';
  });

  function turn(): void {
    night = !night;
    const theme = night ? 'g100' : 'white';
    document.documentElement.setAttribute('theme', theme);
    localStorage.setItem('theme', theme);
  }
</script>

<button type="button" aria-pressed={night} onclick={turn}>
  <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden="true"
    ><path d="M8 1.5a6.5 6.5 0 1 0 6.5 6.5A5 5 0 0 1 8 1.5z" /></svg
  >
  Dark
</button>

<style>
  button {
    display: flex;
    align-items: center;
    gap: 6px;
    padding: 4px 8px;
    border: 0;
    background: none;
    color: var(--ash-soft);
    font-size: var(--ash-text);
    cursor: pointer;
  }
  button[aria-pressed='true'] {
    color: var(--ash-ink);
  }
  path {
    fill: none;
    stroke: currentColor;
    stroke-width: 1.6;
  }
  button[aria-pressed='true'] path {
    fill: currentColor;
  }
</style>
