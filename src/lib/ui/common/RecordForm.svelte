<script lang="ts">
  import type { Snippet } from 'svelte';
  import { Button } from 'carbon-components-svelte';
  import { draftFrom, readDraft, withoutRow, type Draft, type Field, type FormError } from '#core/parts/form/form';
  import { dropDraft, keepDraft, keptDraft } from '$lib/ui/common/drafts';
  import FieldInput from '../parts/FieldInput.svelte';
  import { refusedFields, type Refusal } from '../parts/refused';

  type Props = {
    fields: readonly Field[];
    /** What stands in it at first: a blank one's defaults, or what is being edited. */
    value: Record<string, unknown>;
    busy: boolean;
    saveLabel: string;
    /** What the failure's paths begin with, where the record is sent inside another object. */
    refusedPrefix?: string;
    /** Saves the record. @returns what the server refused, or nothing when it was saved */
    onsave: (record: Record<string, unknown>) => Promise<Refusal | undefined>;
    oncancel?: () => void;
    /** A word about what the record comes to, as soon as it can be read. */
    hint?: (record: Record<string, unknown>) => string;
    /** Where what is typed is kept until it is saved. */
    draftKey: string;
    /** Whether it was opened to be typed into at once. */
    focusFirst?: boolean;
    /** Help that stands below the fields and can fill one of them. */
    help?: Snippet<[fill: (path: string, text: string) => void]>;
  };
  let {
    fields,
    value,
    busy,
    saveLabel,
    refusedPrefix = '',
    onsave,
    oncancel,
    hint,
    draftKey,
    focusFirst = false,
    help
  }: Props = $props();

  // svelte-ignore state_referenced_locally
  let draft = $state<Draft>(draftFrom(fields, value));
  let restored = $state(false);
  $effect(() => {
    const kept = keptDraft<Draft>(draftKey);
    if (!kept) return;
    draft = kept;
    restored = true;
  });
  function discard(key = draftKey): void {
    dropDraft(key);
    draft = draftFrom(fields, value);
    refused = {};
    tried = restored = false;
  }
  function cancel(): void {
    discard();
    oncancel?.();
  }
  let tried = $state(false);
  let refused = $state<Record<string, string>>({});
  const read = $derived(readDraft(fields, draft));
  const errors = $derived.by(() => {
    const shown: Record<string, FormError> = {};
    for (const [path, message] of Object.entries(refused)) shown[path] = { message, suggestions: [] };
    for (const [path, error] of Object.entries(read.errors)) if (tried || isFilled(draft[path])) shown[path] = error;
    return shown;
  });
  /** What is empty is missed on saving, not while it is being filled in. */
  const isFilled = (value: Draft[string] | undefined) => (Array.isArray(value) ? value.length > 0 : Boolean(value));
  /** What the server refused at no field of this form. */
  const homeless = $derived(
    Object.entries(refused).filter(([path]) => !fields.some((f) => f.key === path.split('.')[0]))
  );

  function begin(form: HTMLFormElement): void {
    if (focusFirst) form.querySelector<HTMLElement>('input:not([type="hidden"]), select, textarea')?.focus();
  }

  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const form = event.target as HTMLElement;
    // By the time it is saved the record may have another version, and another key.
    const key = draftKey;
    tried = true;
    if (Object.keys(read.errors).length === 0) {
      const failure = await onsave(read.spec);
      if (!failure) return discard(key);
      refused = refusedFields(failure.fields, refusedPrefix);
    }
    requestAnimationFrame(() =>
      form.querySelector<HTMLElement>('[aria-invalid="true"], .bx--text-input--invalid')?.focus()
    );
  }
  function onedit(path: string, next: Draft[string]): void {
    draft[path] = next;
    delete refused[path];
    keepDraft(draftKey, draft);
  }
</script>

<form onsubmit={submit} novalidate {@attach begin}>
  {#if restored}
    <p class="restored">
      This is what you typed earlier and did not save.
      <button type="button" class="link" onclick={() => discard()}>Start over</button>
    </p>
  {/if}
  {#each fields as field (field.key)}
    <FieldInput
      {field}
      path={field.key}
      {draft}
      {errors}
      assumed={{}}
      {onedit}
      onremove={(list, row) => keepDraft(draftKey, (draft = withoutRow(draft, list, row)))}
    />
  {/each}
  {#if help}<div class="help">{@render help(onedit)}</div>{/if}
  <div class="end">
    <Button type="submit" size="small" disabled={busy}>{saveLabel}</Button>
    {#if oncancel}<Button kind="ghost" size="small" on:click={cancel}>Cancel</Button>{/if}
    {#if hint && Object.keys(read.errors).length === 0}<span class="small quiet">{hint(read.spec)}</span>{/if}
  </div>
  {#each homeless as [path, message] (path)}<p class="error" role="alert">{message}</p>{/each}
</form>

<style>
  form {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
    gap: 10px 14px;
    align-items: start;
    padding: 6px 0 14px;
  }
  .restored,
  .help,
  .end,
  .error {
    grid-column: 1 / -1;
  }
  .end {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  .error {
    color: var(--ash-fail);
  }
</style>
