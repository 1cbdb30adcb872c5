<script lang="ts">
  import { Button, Checkbox, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { FILESYSTEM_IDS, FILESYSTEMS, type FilesystemId } from '#core/facts/filesystems';
  import { suggestVolumeName, volumeNameProblem } from '#core/erase/volume-name';
  import { LEAST_VOLUME_GB, moveBorder, planVolumes } from '#core/format/volumes';
  import { figure } from '#core/quantities/format';
  import { readQuantity } from '#core/quantities/read';
  import {
    MOST_VOLUMES,
    VOLUME_USES,
    VOLUME_USE_LABEL,
    type Formatter,
    type Volume,
    type VolumeUse
  } from '#core/sheets/format-choices';

  type Props = {
    volumes: readonly Volume[];
    shared: boolean;
    diskGB: number;
    scheme: 'gpt' | 'mbr';
    system: Formatter;
    filesystem: FilesystemId;
    name: string;
    onchange: (volumes: Volume[], shared: boolean) => void;
  };
  /** Volumes on the disk, drawn to scale: borders are dragged, moved by arrows, or typed as sizes. */
  let { volumes, shared, diskGB, scheme, system, filesystem, name, onchange }: Props = $props();
  /** While a border is moved, what it makes; it counts when it is let go. */
  let moving = $state.raw<Volume[] | undefined>(undefined);
  const shown = $derived<readonly Volume[]>(
    moving ??
      (volumes.length > 0
        ? volumes
        : [{ name: volumeNameProblem(name, filesystem) ? 'WORK' : name, filesystem, use: 'work' as const }])
  );
  const plan = $derived(planVolumes(shown, { diskGB, scheme, system, shared }));
  const wrong = (i: number, field: string) =>
    plan.problems.find(({ path }) => path === `volumes.${i}.${field}`)?.message;
  let strip = $state<HTMLElement>();

  const put = (next: Volume[]) => onchange(next, shared);
  const change = (i: number, more: Partial<Volume>) =>
    put(shown.map((volume, j) => (j === i ? { ...volume, ...more } : volume)));
  function add(use: VolumeUse): void {
    const fs = shared ? 'apfs' : use === 'exchange' ? 'exfat' : filesystem;
    const base = suggestVolumeName(use === 'backup' ? 'BACKUP' : `${use}-${shown.length + 1}`, fs);
    const half = Math.floor(diskGB / 2);
    // What is there keeps its place; the newcomer takes half of the last one.
    const sized = shown.map((volume, i) => ({
      ...volume,
      ...(shared
        ? {}
        : {
            GB: Math.max(LEAST_VOLUME_GB, Math.floor((plan.placed[i]?.GB ?? half) / (i === shown.length - 1 ? 2 : 1)))
          })
    }));
    put([...sized, { name: base, filesystem: fs, use }]);
  }
  const remove = (i: number) => {
    const left = shown.filter((_, j) => j !== i);
    put(left.length > 1 ? left : []);
  };
  /** Both neighbours of a border with their new sizes; the last volume goes on taking the rest. */
  function moved(i: number, GB: number): Volume[] {
    const [left, right] = moveBorder(plan.placed, i, Math.round(GB));
    return shown.map((volume, j) => {
      if (j === i) return { ...volume, GB: left };
      if (j !== i + 1) return volume.GB === undefined ? { ...volume } : volume;
      const { GB: had, ...rest } = volume;
      return had === undefined ? rest : { ...volume, GB: right };
    });
  }
  /** Held, it only moves; it counts when the key is let go or the border is left. */
  function arrows(event: KeyboardEvent, i: number): void {
    const step = event.shiftKey ? diskGB / 20 : diskGB / 100;
    const by = { ArrowLeft: -step, ArrowDown: -step, ArrowRight: step, ArrowUp: step }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    moving = moved(i, (plan.placed[i]?.GB ?? 0) + by);
  }
  function letGo(): void {
    if (moving) put(moving);
    moving = undefined;
  }
  function drag(event: PointerEvent, i: number): void {
    const box = strip?.getBoundingClientRect();
    if (!box) return;
    const handle = event.currentTarget as HTMLElement;
    handle.setPointerCapture(event.pointerId);
    const from = (plan.placed[i]?.from ?? 0) * diskGB;
    const move = (e: PointerEvent) => (moving = moved(i, ((e.clientX - box.left) / box.width) * diskGB - from));
    const up = () => {
      handle.removeEventListener('pointermove', move);
      handle.removeEventListener('pointerup', up);
      handle.removeEventListener('pointercancel', up);
      letGo();
    };
    handle.addEventListener('pointermove', move);
    handle.addEventListener('pointerup', up);
    handle.addEventListener('pointercancel', up);
  }
  /** What is being typed, by its field: an answer to something else that arrives meanwhile does not take it away. */
  let typing = $state<Record<string, string | undefined>>({});
  /** Sizes that were typed and cannot be read: what was typed stays there, and why. */
  let unread = $state<Record<number, string>>({});
  function typedSize(i: number, event: Event): void {
    const text = (event.target as HTMLInputElement).value.trim();
    const { GB: had, ...rest } = shown[i] as Volume;
    unread = { ...unread, [i]: '' };
    typing = { ...typing, [`${i}.GB`]: undefined };
    if (text === '') {
      if (had !== undefined) put(shown.map((volume, j) => (j === i ? rest : volume)));
      return;
    }
    const read = readQuantity(text, { unit: 'GB', min: LEAST_VOLUME_GB, max: 200_000 });
    if (!read.ok) {
      unread = { ...unread, [i]: read.message };
      typing = { ...typing, [`${i}.GB`]: text };
    } else if (text !== sizeOf(had)) change(i, { GB: read.value });
  }
  const sizeOf = (GB: number | undefined) => (GB === undefined ? '' : String(Math.round(GB * 10) / 10));
  function named(i: number, event: Event): void {
    const input = event.target as HTMLInputElement;
    const had = shown[i]?.name ?? '';
    const text = input.value.trim();
    typing = { ...typing, [`${i}.name`]: undefined };
    if (text === '') input.value = had;
    else if (text !== had) change(i, { name: text });
  }
</script>

<section aria-label="Volumes">
  <h2>Volumes on the disk</h2>
  <div class="strip" class:shared bind:this={strip}>
    {#each plan.placed as volume, i (i)}
      <div
        class="volume {shown[i]?.use}"
        style:left="{shared ? 0 : volume.from * 100}%"
        style:width="{(volume.to - volume.from) * 100}%"
        style:top={shared ? `${(i * 100) / plan.placed.length}%` : '0'}
        style:height={shared ? `${100 / plan.placed.length}%` : '100%'}
      >
        <span
          ><strong>{volume.name}</strong>
          {figure(volume.GB)} GB{volume.rest ? (shared ? ' at most' : ', the rest') : ''}</span
        >
      </div>
    {/each}
    {#if !shared}
      {#each plan.placed.slice(0, -1) as volume, i (i)}
        <div
          class="handle"
          role="slider"
          tabindex="0"
          aria-label="Border between {volume.name} and {plan.placed[i + 1]?.name}"
          aria-valuemin={LEAST_VOLUME_GB}
          aria-valuemax={Math.round((plan.placed[i]?.GB ?? 0) + (plan.placed[i + 1]?.GB ?? 0))}
          aria-valuenow={Math.round(volume.GB)}
          aria-valuetext="{volume.name} {figure(volume.GB)} GB"
          style:left="{volume.to * 100}%"
          onkeydown={(e) => arrows(e, i)}
          onkeyup={letGo}
          onblur={letGo}
          onpointerdown={(e) => drag(e, i)}
        ></div>
      {/each}
    {/if}
  </div>
  {#if shown.length > 1}
    <div class="rows">
      {#each shown as volume, i (i)}
        <div class="row">
          <TextInput
            size="sm"
            labelText="Name"
            value={typing[`${i}.name`] ?? volume.name}
            on:input={(e) => (typing = { ...typing, [`${i}.name`]: String(e.detail ?? '') })}
            invalid={wrong(i, 'name') !== undefined}
            invalidText="It {wrong(i, 'name')}."
            on:blur={(e) => named(i, e)}
          />
          <Select
            size="sm"
            labelText="Filesystem"
            selected={volume.filesystem}
            invalid={wrong(i, 'filesystem') !== undefined}
            invalidText="It {wrong(i, 'filesystem')}."
            on:change={(e) => change(i, { filesystem: (e.currentTarget as HTMLSelectElement).value as FilesystemId })}
          >
            {#each FILESYSTEM_IDS as id (id)}<SelectItem value={id} text={FILESYSTEMS[id].label} />{/each}
          </Select>
          <Select
            size="sm"
            labelText="To"
            selected={volume.use}
            on:change={(e) => change(i, { use: (e.currentTarget as HTMLSelectElement).value as VolumeUse })}
          >
            {#each VOLUME_USES as use (use)}<SelectItem value={use} text={VOLUME_USE_LABEL[use]} />{/each}
          </Select>
          <TextInput
            size="sm"
            labelText={shared ? 'Quota, GB' : 'Size, GB'}
            placeholder={shared ? 'none' : 'the rest'}
            value={typing[`${i}.GB`] ?? sizeOf(volume.GB)}
            on:input={(e) => (typing = { ...typing, [`${i}.GB`]: String(e.detail ?? '') })}
            invalid={Boolean(unread[i]) || wrong(i, 'GB') !== undefined}
            invalidText={unread[i] || `This ${wrong(i, 'GB')}.`}
            on:blur={(e) => typedSize(i, e)}
          />
          <Button size="small" kind="ghost" on:click={() => remove(i)}>Remove {volume.name}</Button>
        </div>
      {/each}
    </div>
  {/if}
  {#if filesystem === 'apfs'}
    <Checkbox
      labelText="The volumes share one container"
      checked={shared}
      on:check={({ detail }) => onchange([...volumes], detail)}
    />
  {/if}
  <p class="acts no-print">
    {#if shown.length < MOST_VOLUMES}
      <Button size="small" kind="tertiary" on:click={() => add('backup')}>Add a volume for backups</Button>
      <Button size="small" kind="tertiary" on:click={() => add('exchange')}>Add one to exchange</Button>
    {/if}
  </p>
  {#each plan.problems.filter(({ path }) => path === 'volumes') as { message } (message)}<p class="bad">
      This cannot be: {message}.
    </p>{/each}
  {#each plan.remarks as remark (remark)}<p class="small">{remark}</p>{/each}
  {#if !shared && plan.leftGB > 0.5}<p class="small quiet">{figure(plan.leftGB)} GB stay unused.</p>{/if}
</section>

<style>
  section {
    margin-top: 22px;
  }
  .strip {
    position: relative;
    height: 52px;
    margin: 8px 0 12px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-well);
  }
  .strip.shared {
    height: 84px;
  }
  .volume {
    position: absolute;
    display: flex;
    align-items: center;
    padding: 0 10px;
    overflow: hidden;
    border-right: 2px solid var(--ash-paper);
    background: var(--ash-channel);
    white-space: nowrap;
  }
  .shared .volume {
    border-bottom: 2px solid var(--ash-paper);
  }
  .volume.backup {
    background: repeating-linear-gradient(45deg, var(--ash-channel) 0 6px, var(--ash-well) 6px 10px);
  }
  .volume span {
    padding: 1px 4px;
    background: var(--ash-sheet);
    font-size: var(--ash-text-small);
    text-overflow: ellipsis;
    overflow: hidden;
  }
  .handle {
    position: absolute;
    top: -4px;
    bottom: -4px;
    width: 14px;
    margin-left: -7px;
    border-left: 3px solid var(--ash-ember);
    border-right: 3px solid var(--ash-ember);
    background: var(--ash-sheet);
    cursor: ew-resize;
    touch-action: none;
  }
  .row {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr)) max-content;
    gap: 8px 12px;
    align-items: start;
    margin-bottom: 8px;
  }
  .row :global(.bx--btn) {
    margin-top: 20px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin: 8px 0;
  }
  .bad {
    color: var(--ash-fail);
  }
  @media (max-width: 800px) {
    .row {
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    }
    .row :global(.bx--btn) {
      margin-top: 0;
    }
  }
</style>
