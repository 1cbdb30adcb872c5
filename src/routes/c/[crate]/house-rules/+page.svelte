<script lang="ts">
  import { page } from '$app/state';
  import { HOUSE_RULE_IDS, HOUSE_RULES, chosenOption, type HouseRuleId } from '#core/house-rules/house-rules';
  import { changesOf } from '$lib/client/change';
  import Explained from '$lib/ui/common/Explained.svelte';

  let { data } = $props();
  const change = $derived(changesOf(data.crate.id));
  let busy = $state(false);
  const rules = $derived(data.crate.houseRules);
  const own = $derived(HOUSE_RULE_IDS.filter((id) => rules[id] !== undefined).length);
  const asked = $derived(page.url.hash.slice(1));

  async function choose(id: HouseRuleId, choice: string | null): Promise<void> {
    if (busy) return;
    busy = true;
    const option = choice ?? HOUSE_RULES[id].standard;
    const { label } = (HOUSE_RULES[id].choices as Record<string, { label: string }>)[option]!;
    await change(
      'PUT',
      `/api/crates/${data.crate.id}/house-rules`,
      { version: data.crate.version, rules: { [id]: choice } },
      choice === null ? `${HOUSE_RULES[id].question}: back to the default.` : `${HOUSE_RULES[id].question}: ${label}.`
    );
    busy = false;
  }
</script>

<svelte:head><title>House rules · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>House rules</h1>
      <p class="quiet">
        Where practice differs, both options have their reasons. Choose once for this crate; wherever a rule decides
        something, it is named. {own === 0
          ? 'Every default stands.'
          : `${own} of ${HOUSE_RULE_IDS.length} chosen here, the others at their default.`}
      </p>
    </div>
  </div>
  <ol>
    {#each HOUSE_RULE_IDS as id (id)}
      {@const rule = HOUSE_RULES[id]}
      {@const chosen = chosenOption(id, rules)}
      <li {id} class:asked={asked === id}>
        <fieldset disabled={busy}>
          <legend>{rule.name} <span class="question">{rule.question}</span></legend>
          <div class="options">
            {#each Object.entries(rule.choices) as [choice, option] (choice)}
              <label class:chosen={chosen === choice}>
                <input
                  type="radio"
                  name={id}
                  value={choice}
                  checked={chosen === choice}
                  onchange={() => void choose(id, choice)}
                />
                <span>
                  <strong>{option.label}</strong>{#if rule.standard === choice}<span class="small quiet">
                      &ensp;default</span
                    >{/if}<br />
                  <span class="why"><Explained text={option.because} /></span>
                </span>
              </label>
            {/each}
          </div>
        </fieldset>
        <p class="small quiet">
          Decides {rule.decides}.{#if rules[id] !== undefined}
            Chosen for this crate. <button
              type="button"
              class="link"
              disabled={busy}
              onclick={() => void choose(id, null)}>Back to the default</button
            >{/if}
        </p>
      </li>
    {/each}
  </ol>
</div>

<style>
  ol {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    padding: 10px 0 12px;
    border-top: 1px solid var(--ash-line);
    scroll-margin-top: 60px;
  }
  li.asked {
    box-shadow: inset 3px 0 0 var(--ash-ink);
    padding-left: 12px;
  }
  fieldset {
    margin: 0;
    padding: 0;
    border: 0;
  }
  legend {
    margin-bottom: 6px;
    font-weight: 650;
  }
  .question {
    margin-left: 8px;
    font-weight: 400;
    color: var(--ash-soft);
  }
  .options {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
    gap: 8px;
    margin-bottom: 4px;
  }
  label {
    display: flex;
    align-items: flex-start;
    gap: 10px;
    padding: 8px 12px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
    cursor: pointer;
    line-height: 1.4;
  }
  label.chosen {
    border-color: var(--ash-edge);
    box-shadow: inset 3px 0 0 var(--ash-ink);
  }
  input {
    margin-top: 3px;
    accent-color: var(--ash-ember);
  }
  .why {
    color: var(--ash-soft);
  }
</style>
