<script lang="ts">
  import { Button, Select, SelectItem } from 'carbon-components-svelte';
  import { typicalValues } from '#core/plan/typical-values';
  import type { Drive } from '#core/parts/drive';
  import type { Enclosure } from '#core/parts/enclosure';
  import { draftFrom, readDraft, withoutRow, type Draft, type Field, type FormError } from '#core/parts/form/form';
  import { dropDraft, keepDraft, keptDraft } from '$lib/ui/common/drafts';
  import FieldInput from './FieldInput.svelte';

  /** Whether one has it: then it is no longer to be bought. */
  type Having = 'yes' | 'ordered' | 'no';
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
    /** Saves the part. `again`: another one of the kind is entered next. */
    onsave: (spec: Record<string, unknown>, having: Having, again: boolean) => void;
    oncancel: () => void;
    /** Classes to begin from, where a part is new. */
    classes?: readonly { id: string; label: string; spec: Record<string, unknown> }[];
    /** Asked where a part is new; what it is taken for at first. */
    having?: Having;
    /** What the second button says, which saves and leaves the form open for another one. */
    againLabel?: string;
    /** What stands in the form came from a pasted text. */
    pasted?: boolean;
  };
  let {
    fields,
    fixed,
    spec,
    draftKey,
    refused,
    busy,
    saveLabel,
    onsave,
    oncancel,
    classes = [],
    having,
    againLabel,
    pasted = false
  }: Props = $props();
  // svelte-ignore state_referenced_locally
  let have = $state<Having>(having ?? 'no');

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
    const again = (event.submitter as HTMLButtonElement | null)?.value === 'again';
    tried = true;
    if (Object.keys(read.errors).length > 0) {
      requestAnimationFrame(() =>
        (event.target as HTMLElement)
          .querySelector<HTMLElement>('[aria-invalid="true"], .bx--text-input--invalid')
          ?.focus()
      );
      return;
    }
    onsave({ ...read.spec, ...fixed }, have, again);
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
  {#if classes.length > 0}
    <div class="class">
      <Select
        labelText="Begin from its class"
        selected=""
        on:update={(e) => {
          const picked = classes.find(({ id }) => id === e.detail);
          if (picked) onfill(draftFrom(fields, picked.spec));
        }}
      >
        <SelectItem value="" text="choose, and what the class says is filled in" />
        {#each classes as { id, label } (id)}<SelectItem value={id} text={label} />{/each}
      </Select>
    </div>
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
    {#if having !== undefined}
      <div class="having">
        <Select size="sm" inline labelText="Do you have it?" bind:selected={have}>
          <SelectItem value="yes" text="yes" />
          <SelectItem value="ordered" text="ordered" />
          <SelectItem value="no" text="thinking of it" />
        </Select>
      </div>
    {/if}
    <Button type="submit" size="field" disabled={busy}>{saveLabel}</Button>
    {#if againLabel}<Button kind="tertiary" type="submit" value="again" size="field" disabled={busy}
        >{againLabel}</Button
      >{/if}
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
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
    padding: 12px 0;
    background: var(--ash-paper);
    border-top: 1px solid var(--ash-line);
  }
  .class {
    max-width: 458px;
    padding-top: 8px;
  }
  .having {
    width: 250px;
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
