<script lang="ts">
  import { Button, TextInput } from 'carbon-components-svelte';
  import { landedPrice } from '#core/cost/landed';
  import { draftFrom, readDraft, type Draft, type Field } from '#core/parts/form';
  import { formFields } from '#core/parts/form-fields';
  import { quoteSchema, type Quote } from '#core/parts/quote';
  import { money } from '#core/quantities/format';

  type Props = {
    currency: string;
    today: string;
    vendors: readonly string[];
    busy: boolean;
    onsave: (quote: Omit<Quote, 'partId'>) => void;
  };
  let { currency, today, vendors, busy, onsave }: Props = $props();
  const fields: Field[] = formFields(quoteSchema.omit({ partId: true }));
  // svelte-ignore state_referenced_locally
  let draft = $state<Draft>({ ...draftFrom(fields, { currency, date: today }) });
  let tried = $state(false);
  const read = $derived(readDraft(fields, draft));
  const whole = $derived(quoteSchema.omit({ partId: true }).safeParse(read.spec));
  const problems = $derived.by(() => {
    const out: Record<string, string> = {};
    for (const [path, error] of Object.entries(read.errors)) if (tried || draft[path]) out[path] = error.message;
    if (Object.keys(read.errors).length === 0 && !whole.success)
      for (const issue of whole.error.issues) out[issue.path.join('.')] = issue.message;
    return out;
  });
  function submit(event: SubmitEvent): void {
    event.preventDefault();
    tried = true;
    if (!whole.success || Object.keys(read.errors).length > 0) return;
    onsave(whole.data);
    draft = { ...draftFrom(fields, { currency, date: today }) };
    tried = false;
  }
</script>

<form onsubmit={submit} novalidate>
  <datalist id="vendors"
    >{#each vendors as vendor (vendor)}<option value={vendor}></option>{/each}</datalist
  >
  {#each fields as field (field.key)}
    <TextInput
      size="sm"
      labelText="{field.title}{'unit' in field && field.unit ? `, ${field.unit}` : ''}{field.required
        ? ''
        : ' (optional)'}"
      value={String(draft[field.key] ?? '')}
      list={field.key === 'vendor' ? 'vendors' : undefined}
      placeholder={field.key === 'date' || field.key === 'expires' ? 'year-month-day' : ''}
      invalid={problems[field.key] !== undefined}
      invalidText={problems[field.key] ?? ''}
      autocomplete="off"
      on:input={(e) => (draft[field.key] = String(e.detail ?? ''))}
    />
  {/each}
  <div class="end">
    <Button type="submit" size="small" disabled={busy}>Note the quote</Button>
    {#if whole.success}<span class="small quiet">{money(landedPrice(whole.data), whole.data.currency)} landed</span
      >{/if}
  </div>
</form>

<style>
  form {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
    gap: 10px 14px;
    align-items: start;
  }
  .end {
    display: flex;
    align-items: center;
    gap: 12px;
    align-self: end;
    grid-column: span 2;
  }
</style>
