<script lang="ts">
  import { Modal } from 'carbon-components-svelte';
  import OnceOpen from '../common/OnceOpen.svelte';

  type Row = { spec: { name: string }; builds: readonly string[] };
  /** Asks before a job goes, and says which builds were made for it. */
  let { job, onkeep, ondelete }: { job: Row | undefined; onkeep: () => void; ondelete: () => void } = $props();
</script>

<OnceOpen open={job !== undefined}>
  <Modal
    danger
    open={job !== undefined}
    modalHeading="Delete the job {job?.spec.name ?? ''}?"
    primaryButtonText="Delete"
    secondaryButtonText="Keep it"
    on:close={onkeep}
    on:click:button--secondary={onkeep}
    on:submit={ondelete}
  >
    <p>
      {job && job.builds.length > 0
        ? `${job.builds.join(', ')} ${job.builds.length === 1 ? 'was' : 'were'} made for it: what was planned stays as it is, and says that the job is gone when it is opened.`
        : 'No build was made for it.'} You can take this back.
    </p>
  </Modal>
</OnceOpen>
