<script lang="ts">
  import { aKind } from '#core/parts/kinds';
  import Explained from '$lib/ui/common/Explained.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { LINK_MODES, type LinkMode } from '#core/facts/link-modes';
  import { PLUG_LABELS } from '#core/parts/link-mode';
  import type { Field } from '#core/parts/form/form';
  import type { BoxReading } from '#core/box-text/claims';
  import { fieldAt } from './choices';

  type Props = {
    reading: BoxReading;
    text: string;
    fields: readonly Field[];
    answers: Readonly<Record<string, number>>;
    dropped: ReadonlySet<string>;
    onanswer: (path: string, option: number) => void;
    ondrop: (path: string, away: boolean) => void;
  };
  let { reading, text, fields, answers, dropped, onanswer, ondrop }: Props = $props();

  function titleOf(path: string): string {
    const [group, ...rest] = path.split('.');
    const title = fieldAt(fields, path)?.title ?? path;
    return rest.length > 0 ? `${fieldAt(fields, group!)?.title ?? group}: ${title}` : title;
  }
  function unitOf(path: string): string {
    const field = fieldAt(fields, path);
    if (path === 'm2LengthsMm') return 'mm';
    return field && 'unit' in field ? (field.unit ?? '') : '';
  }
  function say(path: string, value: unknown): string {
    const field = fieldAt(fields, path);
    // eslint-disable-next-line complexity -- one line for each kind of answer
    const one = (v: unknown): string => {
      if (typeof v === 'string' && Object.hasOwn(PLUG_LABELS, v)) return PLUG_LABELS[v as keyof typeof PLUG_LABELS];
      if (typeof v === 'string' && Object.hasOwn(LINK_MODES, v)) return LINK_MODES[v as LinkMode].label;
      if (field && 'options' in field) return field.options.find((o) => o.value === v)?.label ?? String(v);
      if (typeof v === 'boolean') return v ? 'yes' : 'no';
      if (v !== null && typeof v === 'object')
        return Object.entries(v)
          .filter(([key]) => key !== 'id')
          .map(([key, inner]) =>
            key === 'label'
              ? String(inner)
              : Array.isArray(inner)
                ? inner.map(one).join(' to ')
                : `${String(inner)}${key.endsWith('Mm') ? ' mm' : key.endsWith('M') ? ' m' : ''}`
          )
          .join(', ');
      return String(v);
    };
    const words = Array.isArray(value) ? value.map(one).join(path === 'ends' ? ' to ' : '; ') : one(value);
    return [words, unitOf(path)].filter(Boolean).join('\u202f');
  }
  /** The text with what was read marked in it. */
  const pieces = $derived.by(() => {
    const spans = [
      ...reading.found.flatMap((f) => f.spans.map((s) => ({ ...s, asked: false }))),
      ...reading.questions.flatMap((q) => q.spans.map((s) => ({ ...s, asked: true })))
    ].sort((a, b) => a.start - b.start || b.end - a.end);
    const out: { text: string; mark?: 'read' | 'asked' }[] = [];
    let at = 0;
    for (const span of spans) {
      if (span.start < at) continue;
      out.push(
        { text: text.slice(at, span.start) },
        { text: text.slice(span.start, span.end), mark: span.asked ? 'asked' : 'read' }
      );
      at = span.end;
    }
    return [...out, { text: text.slice(at) }];
  });
</script>

<section aria-label="What was read">
  {#each reading.questions as question (question.path)}
    <fieldset>
      <legend>{titleOf(question.path)}</legend>
      <p class="small"><Explained text={question.why} /></p>
      {#each question.options as option, i (i)}
        <label>
          <input
            type="radio"
            name="ask-{question.path}"
            checked={answers[question.path] === i}
            onchange={() => onanswer(question.path, i)}
          />
          {say(question.path, option.value)} <span class="quiet small">“{option.words}”</span>
        </label>
      {/each}
      <label>
        <input
          type="radio"
          name="ask-{question.path}"
          checked={answers[question.path] === undefined}
          onchange={() => onanswer(question.path, -1)}
        /> leave it open
      </label>
    </fieldset>
  {/each}
  {#if reading.found.length === 0 && reading.questions.length === 0}
    <p>
      Nothing in this text could be read as a field of {aKind(reading.kind)}.
    </p>
  {:else}
    <Wide label="Fields read"
      ><table class="plain-table">
        <thead><tr><th>Field</th><th>Read as</th><th>From the words</th><th>How sure</th><th>Take it</th></tr></thead>
        <tbody>
          <tr
            ><td>Name</td><td colspan="4"
              >{reading.name} <span class="quiet small">– first line; change it on the next page</span></td
            ></tr
          >
          {#each reading.found as found (found.path)}
            <tr class:away={dropped.has(found.path)}>
              <td><Explained text={titleOf(found.path)} /></td>
              <td class="figure wrap">{say(found.path, found.value)}</td>
              <td class="small quiet">“{found.words.join('”, “')}”</td>
              <td>{found.sure ? 'stated' : 'likely'}</td>
              <td
                ><input
                  type="checkbox"
                  aria-label="Take {titleOf(found.path)}"
                  checked={!dropped.has(found.path)}
                  onchange={(e) => ondrop(found.path, !e.currentTarget.checked)}
                /></td
              >
            </tr>
          {/each}
        </tbody>
      </table></Wide
    >
  {/if}
  <h2>In the text</h2>
  <p class="text">
    {#each pieces as piece, i (i)}{#if piece.mark}<mark class={piece.mark}>{piece.text}</mark
        >{:else}{piece.text}{/if}{/each}
  </p>
  <p class="small quiet">
    <mark class="read">read</mark> <mark class="asked">asked about</mark> – what is not marked was not understood.
  </p>
</section>

<style>
  fieldset {
    margin: 0 0 14px;
    padding: 10px 14px;
    border: 1px solid var(--ash-caution);
    border-left-width: 4px;
    background: var(--ash-sheet);
  }
  legend {
    padding: 0 6px;
    font-weight: 650;
  }
  label {
    display: block;
    padding: 3px 0;
  }
  input {
    accent-color: var(--ash-ember);
  }
  .wrap {
    white-space: normal;
  }
  .away td {
    color: var(--ash-faint);
    text-decoration: line-through;
  }
  h2 {
    margin: 18px 0 6px;
  }
  .text {
    padding: 12px 14px;
    white-space: pre-wrap;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
  }
  mark {
    color: inherit;
    background: none;
    border-bottom: 2px solid var(--ash-edge);
  }
  mark.asked {
    border-bottom: 3px double var(--ash-caution);
    font-weight: 650;
  }
</style>
