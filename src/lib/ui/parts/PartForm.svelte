<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { typicalValues } from '#core/plan/typical-values';
  import type { Drive } from '#core/parts/drive';
  import type { Enclosure } from '#core/parts/enclosure';
  import { draftFrom, readDraft, withoutRow, type Draft, type Field, type FormError } from '#core/parts/form/form';
  import { dropDraft, keepDraft, keptDraft } from '$lib/ui/common/drafts';
  import FieldInput from './FieldInput.svelte';

  type Props = {
    fields: readonly Field[];
    /** What is put into the specification beside the fields: the kind. */
    fixed: Record<string, unknown>;
    spec?: Record<string, unknown>;
    /** Where what is typed is kept until it is saved, so that a reload loses nothing. */
    draftKey: string;
    /** What the server refused, by path. */
    refused: Record<string, string>;
    busy: boolean;
    saveLabel: string;
    onsave: (spec: Record<string, unknown>) => void;
    oncancel: () => void;
    /** What stands in the form came from a pasted text. */
    pasted?: boolean;
  };
  let { fields, fixed, spec, draftKey, refused, busy, saveLabel, onsave, oncancel, pasted = false }: Props = $props();

  // svelte-ignore state_referenced_locally
  const stored = draftFrom(fields, spec ?? {});
  let draft = $state<Draft>({ ...stored });
  let touched = $state(false);
  let tried = $state(false);
  let restored = $state(false);

  $effect(() => {
    const kept = keptDraft<Draft>(draftKey);
    if (!kept) return;
    draft = kept;
    restored = true;
    touched = true;
  });
  $effect(() => {
    if (touched) keepDraft(draftKey, draft);
  });
  /** Sections that are open: one that was opened stays so while one types in it. */
  let opened = $state<Record<string, boolean>>({});
  /** Refused fields that were typed in since: whether they are right now is for the next save to say. */
  let calmed = $state<Record<string, boolean>>({});
  $effect(() => {
    void refused;
    calmed = {};
  });

  const read = $derived(readDraft(fields, draft));
  const errors = $derived.by(() => {
    const shown: Record<string, FormError> = {};
    for (const [path, message] of Object.entries(refused))
      if (!calmed[path]) shown[path] = { message, suggestions: [] };
    // While it is being filled in, only what was typed wrong is said; what is still empty is said on saving.
    for (const [path, error] of Object.entries(read.errors))
      if (tried || (typeof draft[path] === 'string' && draft[path] !== '')) shown[path] = error;
    return shown;
  });
  const count = $derived(Object.keys(errors).length);

  /** Takes what is half filled in for a part: what it still lacks is assumed, or thrown at. */
  const half = <T,>(spec: Record<string, unknown>) => spec as T;
  const assumed = $derived.by(() => {
    const whole = { ...read.spec, ...fixed };
    try {
      if (fixed.kind === 'drive' && 'media' in whole && 'formFactor' in whole)
        return typicalValues(half<Drive>({ capacityTB: 1, name: '', ...whole }));
      if (fixed.kind === 'enclosure' && 'formFactor' in whole && 'modes' in whole)
        return typicalValues(half<Enclosure>({ protocols: ['nvme'], plug: 'usb-c', name: '', ...whole }));
    } catch {
      // What is half filled in may not be a part yet.
    }
    return {};
  });

  const needed = $derived(fields.filter((f) => f.required || f.first));
  const groups = $derived.by(() => {
    const byName = new Map<string, Field[]>();
    for (const field of fields) {
      if (needed.includes(field)) continue;
      const name = field.group ?? 'More';
      byName.set(name, [...(byName.get(name) ?? []), field]);
    }
    return [...byName];
  });

  function onedit(path: string, value: Draft[string]): void {
    draft[path] = value;
    // A list is refused at its own path or at one of its rows; what is typed into either is looked at anew.
    for (const wrong of Object.keys(refused))
      if (wrong === path || wrong.startsWith(`${path}.`) || path.startsWith(`${wrong}.`)) calmed[wrong] = true;
    touched = true;
  }
  function onfill(values: Draft): void {
    draft = { ...draft, ...values };
    touched = true;
  }
  /** Whether anything of a field was filled in: itself, or what lies below it. */
  const isStated = (key: string): boolean =>
    Object.entries(draft).some(
      ([path, value]) =>
        (path === key || path.startsWith(`${key}.`)) && (typeof value === 'number' ? value > 0 : value.length > 0)
    );
  /** Takes a row out of a list and moves the later ones up. */
  function onremove(listPath: string, row: number): void {
    draft = withoutRow(draft, listPath, row);
    touched = true;
  }
  function submit(event: SubmitEvent): void {
    event.preventDefault();
    tried = true;
    if (Object.keys(read.errors).length > 0) {
      requestAnimationFrame(() =>
        (event.target as HTMLElement)
          .querySelector<HTMLElement>('[aria-invalid="true"], .bx--text-input--invalid')
          ?.focus()
      );
      return;
    }
    onsave({ ...read.spec, ...fixed });
  }
  function discard(): void {
    dropDraft(draftKey);
    draft = { ...stored };
    restored = false;
    touched = false;
  }
</script>

<form onsubmit={submit} novalidate>
  {#if restored}
    <p class="restored">
      {pasted
        ? 'This was read from what you pasted; look through it before you save.'
        : 'This is what you typed earlier and did not save.'}
      <button type="button" onclick={discard}>Start over</button>
    </p>
  {/if}
  <div class="first">
    {#each needed as field (field.key)}
      <FieldInput {field} path={field.key} {draft} {errors} {assumed} {onedit} {onremove} {onfill} />
    {/each}
  </div>
  {#each groups as [name, list] (name)}
    {@const wrong = Object.keys(errors).some((path) =>
      list.some((f) => path === f.key || path.startsWith(`${f.key}.`))
    )}
    {@const filled = list.filter((f) => isStated(f.key)).length}
    <details
      open={opened[name] ?? false}
      ontoggle={(e) => (opened[name] = e.currentTarget.open)}
      {@attach () => {
        // What needs a look is shown; nothing that is open is ever closed by the page.
        if (wrong) opened[name] = true;
      }}
    >
      <summary
        >{name}<span class="quiet small"
          >, {filled > 0 ? `${filled} of ${list.length} stated` : 'optional'}{wrong ? ' – needs a look' : ''}</span
        ></summary
      >
      <div class="first">
        {#each list as field (field.key)}
          <FieldInput {field} path={field.key} {draft} {errors} {assumed} {onedit} {onremove} {onfill} />
        {/each}
      </div>
    </details>
  {/each}
  {#if count > 0}<p class="count" role="alert">
      {count === 1 ? 'One field needs a look.' : `${count} fields need a look.`}
    </p>{/if}
  <div class="buttons">
    <Button type="submit" size="field" disabled={busy}>{saveLabel}</Button>
    <Button kind="ghost" size="field" on:click={oncancel}>Cancel</Button>
  </div>
</form>

<style>
  form {
    max-width: 1000px;
  }
  .first {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
    gap: 14px 18px;
    align-items: start;
    padding: 12px 0 18px;
  }
  details {
    border-top: 1px solid var(--ash-line);
  }
  summary {
    padding: 10px 0;
    font-weight: 600;
    cursor: pointer;
  }
  .count {
    padding: 8px 0;
    color: var(--ash-fail);
    font-weight: 600;
  }
  .buttons {
    position: sticky;
    bottom: 0;
    display: flex;
    gap: 8px;
    padding: 12px 0;
    background: var(--ash-paper);
    border-top: 1px solid var(--ash-line);
  }
  .restored {
    padding: 8px 12px;
    background: var(--ash-ember-wash);
  }
  .restored button {
    border: 0;
    background: none;
    color: var(--ash-ember);
    text-decoration: underline;
    cursor: pointer;
  }
</style>
