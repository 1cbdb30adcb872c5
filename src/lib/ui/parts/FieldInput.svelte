<script lang="ts">
  import { tick as tickOnce } from 'svelte';
  import { aThing } from '#core/quantities/format';
  import DayField from '$lib/ui/common/DayField.svelte';
  import { Checkbox, Select, SelectItem, TextArea, TextInput } from 'carbon-components-svelte';
  import { splitTerms } from '#core/facts/glossary';
  import type { Draft, Field, FormError } from '#core/parts/form/form';
  import { PORT_PRESETS, portDraft } from '#core/parts/form/port-presets';
  import Term from '$lib/ui/common/Term.svelte';
  import { withTick } from '$lib/ui/common/ticks';
  import Self from './FieldInput.svelte';

  type Props = {
    field: Field;
    path: string;
    draft: Draft;
    errors: Record<string, FormError>;
    /** Typical values for what is left empty, by path. */
    assumed: Record<string, string>;
    onedit: (path: string, value: Draft[string]) => void;
    onremove: (listPath: string, row: number) => void;
    /** Fills several inputs at once: what one choice says about them. */
    onfill?: (values: Draft) => void;
  };
  let { field, path, draft, errors, assumed, onedit, onremove, onfill }: Props = $props();

  const error = $derived(errors[path]);
  const term = $derived(splitTerms(field.title).find((piece) => piece.term)?.term);
  const typed = $derived(typeof draft[path] === 'string' ? (draft[path] as string) : '');
  const picked = $derived(Array.isArray(draft[path]) ? (draft[path] as string[]) : []);
  const rows = $derived(typeof draft[path] === 'number' ? (draft[path] as number) : 0);
  const unit = $derived('unit' in field && field.unit ? `, ${field.unit}` : '');
  const label = $derived(`${field.title}${unit}${field.required ? '' : ' (optional)'}`);
  const template = $derived(assumed[path]);
  const uid = $props.id();
  /** What of a port is asked at once; the rest folds as long as nothing of it is stated or wrong. */
  const OF_A_PORT = ['label', 'plug', 'modes', 'powerW'];
  function isRare(inner: Field, row: number): boolean {
    if (path !== 'ports' || OF_A_PORT.includes(inner.key)) return false;
    const at = `${path}.${row}.${inner.key}`;
    // The short id is given by the preset; without one it has to be seen.
    const stated = typeof draft[at] === 'string' && draft[at] !== '';
    return errors[at] === undefined && (inner.key === 'id' ? stated : !stated);
  }
  function tick(value: string, on: boolean): void {
    const next = withTick(picked, value, on);
    if (next !== picked) onedit(path, [...next]);
  }
  /** Adds a row to a list; whoever added it types into it next. */
  async function addRow(event: MouseEvent): Promise<void> {
    const list = (event.currentTarget as HTMLElement).parentElement;
    onedit(path, rows + 1);
    await tickOnce();
    const all = list?.querySelectorAll(':scope > .list-row');
    all?.[all.length - 1]?.querySelector<HTMLElement>('input, select, textarea, button')?.focus();
  }
  /** The bare value of a template, where it can be taken as it is. */
  const confirmable = $derived(template?.split(' – ')[0] ?? '');
</script>

{#snippet cell(inner: Field, row: number)}
  <Self field={inner} path="{path}.{row}.{inner.key}" {draft} {errors} {assumed} {onedit} {onremove} {onfill} />
{/snippet}
{#snippet explained()}{#if term}<span class="mark"><Term text={field.title} {term} mark /></span>{/if}{/snippet}
{#if field.type === 'group'}
  <fieldset>
    <legend>{field.title}{field.required ? '' : ' (optional)'} {@render explained()}</legend>
    <div class="fields">
      {#each field.fields as inner (inner.key)}
        <Self field={inner} path="{path}.{inner.key}" {draft} {errors} {assumed} {onedit} {onremove} {onfill} />
      {/each}
    </div>
    {#if error}<p class="error">{error.message}</p>{/if}
  </fieldset>
{:else if field.type === 'list'}
  <fieldset class="wide">
    <legend>{field.title}</legend>
    {#each { length: rows } as _, row (row)}
      <div class="list-row">
        {#if path === 'ports' && onfill}
          <div class="preset">
            <Select
              labelText="What is printed beside it"
              selected=""
              on:update={(e) => {
                const preset = PORT_PRESETS.find((p) => p.label === e.detail);
                if (preset) onfill(portDraft(preset, `${path}.${row}`, draft));
              }}
            >
              <SelectItem value="" text="choose, and the rest is filled in" />
              {#each PORT_PRESETS as preset (preset.label)}<SelectItem
                  value={preset.label}
                  text={preset.label}
                />{/each}
            </Select>
          </div>
        {/if}
        <div class="fields">
          {#each field.fields.filter((inner) => !isRare(inner, row)) as inner (inner.key)}
            {@render cell(inner, row)}
          {/each}
        </div>
        {#if field.fields.some((inner) => isRare(inner, row))}
          <details>
            <summary class="small">What is rarely known of a {field.item}</summary>
            <div class="fields">
              {#each field.fields.filter((inner) => isRare(inner, row)) as inner (inner.key)}
                {@render cell(inner, row)}
              {/each}
            </div>
          </details>
        {/if}
        <button type="button" class="plain" onclick={() => onremove(path, row)}>Remove {field.item} {row + 1}</button>
      </div>
    {/each}
    {#if error}<p class="error">{error.message}</p>{/if}
    <button type="button" class="plain" onclick={addRow}>Add {aThing(field.item)}</button>
  </fieldset>
{:else if field.type === 'choices'}
  <fieldset class="wide choices">
    <legend>{label} {@render explained()}</legend>
    {#if field.description}<p class="small quiet">{field.description}</p>{/if}
    <div class="checks">
      {#each field.options as option (option.value)}
        <Checkbox
          labelText={option.label}
          checked={picked.includes(String(option.value))}
          on:check={(e) => tick(String(option.value), e.detail)}
        />
      {/each}
    </div>
    {#if error}<p class="error">{error.message}</p>{/if}
    {#if picked.length === 0 && template}<p class="small quiet">assumed: {template}</p>{/if}
  </fieldset>
{:else if field.type === 'choice' || field.type === 'yes-no'}
  <div class="input">
    <Select
      labelText={label}
      selected={typed}
      invalid={error !== undefined}
      invalidText={error?.message ?? ''}
      helperText={typed === '' && template ? `assumed: ${template}` : (field.description ?? '')}
      on:update={(e) => onedit(path, String(e.detail ?? ''))}
    >
      <SelectItem value="" text={field.required ? 'choose' : 'not known'} />
      {#if field.type === 'choice'}
        {#each field.options as option (option.value)}<SelectItem
            value={String(option.value)}
            text={option.label}
          />{/each}
      {:else}
        <SelectItem value="yes" text="yes" />
        <SelectItem value="no" text="no" />
      {/if}
    </Select>
    {@render explained()}
  </div>
{:else if field.type === 'text' && field.lines}
  <div class="wide">
    <TextArea
      labelText={label}
      value={typed}
      rows={3}
      maxlength={field.maxLength}
      invalid={error !== undefined}
      invalidText={error?.message ?? ''}
      on:input={(e) => onedit(path, (e.target as HTMLTextAreaElement).value)}
    />
  </div>
{:else if field.type === 'text' && field.day}
  <div class="input">
    <DayField
      {label}
      value={typed}
      invalid={error !== undefined}
      invalidText={error?.message ?? ''}
      helperText={field.description ?? ''}
      onpick={(date) => onedit(path, date)}
    />
    {@render explained()}
  </div>
{:else}
  {@const suggestions = field.type === 'text' ? (field.suggestions ?? []) : []}
  <div class="input">
    {#if suggestions.length > 0}
      <datalist id="{uid}-list"
        >{#each suggestions as word (word)}<option value={word}></option>{/each}</datalist
      >
    {/if}
    <TextInput
      labelText={label}
      value={typed}
      invalid={error !== undefined}
      invalidText={error?.message ?? ''}
      helperText={typed === '' && template ? `assumed: ${template}` : (field.description ?? '')}
      autocomplete="off"
      list={suggestions.length > 0 ? `${uid}-list` : undefined}
      on:input={(e) => onedit(path, String(e.detail ?? ''))}
    />
    {#if typed === '' && template && confirmable !== ''}
      <button
        type="button"
        class="confirm"
        aria-label="Confirm {confirmable} for {field.title}"
        onclick={() => onedit(path, confirmable)}>confirm {confirmable}</button
      >
    {/if}
    {#if error && error.suggestions.length > 0}
      <p class="meant">
        Meant
        {#each error.suggestions as suggestion (suggestion.text)}
          <button type="button" class="plain" onclick={() => onedit(path, suggestion.text)}>{suggestion.text}</button>
        {/each}
      </p>
    {/if}
    {@render explained()}
  </div>
{/if}

<style>
  fieldset {
    grid-column: 1 / -1;
    margin: 0;
    padding: 0;
    border: 0;
  }
  .wide {
    grid-column: 1 / -1;
  }
  legend {
    padding: 4px 0 6px;
    font-weight: 600;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
    gap: 12px 16px;
    align-items: start;
  }
  .input {
    position: relative;
  }
  .input:has(> .mark) :global(.bx--label) {
    padding-right: 24px;
  }
  /* In the line of the label, at its end. */
  .input > .mark {
    position: absolute;
    z-index: 1;
    top: -2px;
    right: 0;
  }
  .checks {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 20px;
  }
  .checks :global(.bx--form-item) {
    flex: none;
    margin: 0;
  }
  .list-row {
    margin-bottom: 10px;
    padding: 10px 12px;
    border: 1px solid var(--ash-line);
    background: var(--ash-paper);
  }
  .plain {
    margin-top: 8px;
    padding: 4px 10px;
    border: 1px solid var(--ash-ember);
    background: none;
    color: var(--ash-ember);
    cursor: pointer;
  }
  .preset {
    max-width: 320px;
    margin-bottom: 10px;
  }
  .confirm {
    padding: 2px 0;
    border: 0;
    background: none;
    color: var(--ash-ember);
    font-size: var(--ash-text-small);
    text-decoration: underline;
    cursor: pointer;
  }
  .error {
    margin-top: 4px;
    font-size: var(--ash-text-small);
    color: var(--ash-fail);
  }
  .meant {
    display: flex;
    align-items: center;
    gap: 6px;
    font-size: var(--ash-text-small);
  }
  .meant .plain {
    margin-top: 4px;
  }
</style>
