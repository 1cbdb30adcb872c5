<script lang="ts">
  import { newestFigures } from '#core/results/newest';
  import { page } from '$app/state';
  import { Button } from 'carbon-components-svelte';
  import { SYMPTOM_WORDS, SYMPTOMS, type Symptom } from '#core/diagnosis/question';
  import { situationOf } from '#core/diagnosis/situation';
  import { UnknownAnswer, type TroubleAnswer } from '#core/diagnosis/asking';
  import { trouble } from '#core/diagnosis/trouble';
  import { day } from '#core/quantities/format';
  import { keepAddress, withQuery } from '$lib/client/address';
  import { changesOf } from '$lib/client/change';
  import AskNext from '$lib/ui/trouble/AskNext.svelte';
  import FoundCause from '$lib/ui/trouble/FoundCause.svelte';
  import SoFar from '$lib/ui/trouble/SoFar.svelte';
  import { answersFromText, answersToText } from '$lib/ui/trouble/path';

  let { data } = $props();
  const tag = $derived(data.build.tag);
  const api = $derived(`/api/crates/${data.crate.id}`);
  const change = $derived(changesOf(data.crate.id));
  const parts = $derived(data.build.snapshot);
  const symptom = $derived.by((): Symptom | undefined => {
    const asked = page.url.searchParams.get('symptom');
    return SYMPTOMS.find((one) => one === asked);
  });
  const answers = $derived(answersFromText(page.url.searchParams.get('a')));
  /** The newest result; one of the stand-in rig counts in the demo only, and is called so. */
  const run = $derived(newestFigures(data.runs, data.crate.demo));
  const situation = $derived({ ...situationOf(parts, run?.results), judged: data.judged });
  /** An address of another build, or of before its parts were changed, may hold answers to what is not asked here. */
  const report = $derived.by(() => {
    if (!symptom) return undefined;
    try {
      return trouble(symptom, situation, answers);
    } catch (error) {
      if (error instanceof UnknownAnswer) return trouble(symptom, situation, answers.slice(0, error.index));
      throw error;
    }
  });
  let busy = $state(false);
  /** Who says what is not asked: the parts, or a result. */
  const sayer = (test: string) =>
    test !== 'reads-at' && test !== 'read-or-write'
      ? 'The build says so.'
      : `The newest result says so${run?.simulated ? ', a simulated one' : ''}.`;

  const go = (chosen: string | undefined, list: readonly TroubleAnswer[]) =>
    void keepAddress(withQuery(page.url, { symptom: chosen, a: answersToText(list) || undefined }));
  const answer = (outcome: string) => {
    if (!report?.ask || !symptom) return;
    go(symptom, [...answers.slice(0, report.path.length), { test: report.ask.test, outcome }]);
  };
  const [cause] = $derived(report?.causes ?? []);
  const said = $derived(cause?.says ?? '');
  /** The item that the cause lies with: a cable is noted on the cable. */
  const item = $derived(cause && data.items[cause.of]);
  const bridge = $derived(parts.enclosure.bridge);

  async function during(work: () => Promise<unknown>): Promise<void> {
    busy = true;
    await work();
    busy = false;
  }
  const record = () =>
    during(() =>
      change(
        'POST',
        `${api}/builds/${data.build.id}/trouble`,
        { symptom, answers: answers.slice(0, report?.path.length ?? 0) },
        'Kept in the log.'
      )
    );
  const asPair = () =>
    during(() =>
      change(
        'POST',
        `${api}/pairs`,
        { driveId: data.build.choice.driveId, bridge, verdict: 'bad', reason: said.slice(0, 300), date: data.today },
        `Noted ${parts.drive.name} with ${bridge} as a bad combination.`
      )
    );
  function onItem(): Promise<void> {
    if (!item) return Promise.resolve();
    const { id: _id, ...unit } = item.unit;
    const notes = [unit.notes, `${data.today}: ${said}`].filter(Boolean).join('\n').slice(0, 2000);
    return during(() =>
      change(
        'PUT',
        `${api}/units/${item.id}`,
        { version: item.version, unit: { ...unit, notes } },
        `Noted on ${unit.tag}.`
      )
    );
  }
</script>

<svelte:head><title>{tag} It does not work · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>It does not work</h1>
      <p class="quiet">
        From the cheapest look to the dearest, at most six, made for {parts.drive.name} in {parts.enclosure.name}. What
        the build already says is not asked.
      </p>
    </div>
    <Button size="field" kind="tertiary" class="no-print" href="/b/{tag}/assemble">Back to the sheet</Button>
  </div>
  {#if !symptom || !report}
    <h2>What does it do?</h2>
    <div class="symptoms">
      {#each SYMPTOMS as one (one)}
        <button type="button" onclick={() => go(one, [])}>It {SYMPTOM_WORDS[one]}</button>
      {/each}
    </div>
    {#if data.records.length > 0}
      <h2 class="before">Found on this build before</h2>
      <ul class="lines">
        {#each data.records as record (record.id)}
          <li>
            <span class="quiet small">{day(record.date)}</span> It {SYMPTOM_WORDS[record.seen.symptom]}: {record.seen
              .cause === null
              ? 'could not be told'
              : record.seen.says}
          </li>
        {/each}
      </ul>
    {/if}
  {:else}
    <ol class="path">
      <li>
        <span>It {SYMPTOM_WORDS[symptom]}.</span>
        <button type="button" class="link" onclick={() => go(undefined, [])}>Something else</button>
      </li>
      {#each report.known as one (one.test)}<li class="quiet">
          {one.text} <span class="small">{sayer(one.test)}</span>
        </li>{/each}
      {#each report.path as one, i (one.test)}
        <li>
          <span>{one.text} <strong>{one.answer}.</strong></span>
          <button
            type="button"
            class="link"
            aria-label="Answer again: {one.text}"
            onclick={() => go(symptom, answers.slice(0, i))}>Answer again</button
          >
        </li>
      {/each}
    </ol>
    {#if report.ask}
      <div class="two-columns">
        <AskNext ask={report.ask} number={report.path.length + 1} onanswer={answer} />
        <SoFar causes={report.causes} />
      </div>
    {:else}
      <FoundCause
        {report}
        {symptom}
        sheetHref="/b/{tag}/assemble"
        {busy}
        pair={bridge ? `${parts.drive.name} with ${bridge}` : undefined}
        item={item?.unit.tag}
        onrecord={() => void record()}
        onpair={() => void asPair()}
        onitem={() => void onItem()}
      />
    {/if}
    <p class="small quiet caution">
      Never open anything that has power, and never a supply. Before anything is erased or initialised, make sure by
      size and serial number that it is the right disk. Where data matters, copy first and try afterwards.
    </p>
  {/if}
</div>

<style>
  .symptoms {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
    gap: 8px;
    max-width: 60rem;
    margin-top: 10px;
  }
  .symptoms button {
    min-height: 48px;
    padding: 8px 16px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: var(--ash-ink);
    text-align: left;
    cursor: pointer;
  }
  .symptoms button:hover {
    background: var(--ash-well);
  }
  .before {
    margin-top: 24px;
  }
  .path {
    max-width: 46rem;
    margin-bottom: 14px;
    padding: 0;
    list-style: none;
  }
  .path li {
    display: flex;
    gap: 14px;
    justify-content: space-between;
    align-items: baseline;
    padding: 5px 0;
    border-bottom: 1px solid var(--ash-line);
  }
  .path .link {
    flex: none;
  }
  .caution {
    max-width: 46rem;
    margin-top: 14px;
  }
</style>
