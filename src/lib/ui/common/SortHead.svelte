<script lang="ts">
  /** A column's head that sorts by it: pressed once upwards, pressed again downwards. */
  type Props = { label: string; number?: boolean | undefined; sorted: 'up' | 'down' | undefined; onsort: () => void };
  let { label, number = false, sorted, onsort }: Props = $props();
</script>

<th scope="col" class:number aria-sort={sorted && (sorted === 'down' ? 'descending' : 'ascending')}>
  <button type="button" onclick={onsort}
    >{label}<span aria-hidden="true">{sorted ? (sorted === 'down' ? ' ↓' : ' ↑') : ''}</span></button
  >
</th>

<style>
  button {
    padding: 0;
    border: 0;
    background: none;
    color: inherit;
    font: inherit;
    cursor: pointer;
  }
  .number button {
    width: 100%;
    text-align: right;
  }
</style>
