<script lang="ts">
  import { TOUCH } from '#core/facts/thermal';
  import { duration, figure, quantity } from '#core/quantities/format';
  import type { PlanReport } from '#core/plan/report';

  /** Whether the case may be held and carried, and what it draws, by the plan. */
  let { thermal, job }: { thermal: NonNullable<PlanReport['thermal']>; job: string | undefined } = $props();
  const TOUCH_WORDS = {
    comfortable: 'may be held for hours',
    brief: 'may be touched briefly',
    'do-not-hold': 'do not hold it'
  } as const;
</script>

<dl>
  <div>
    <dt>Case, long write</dt>
    <dd>
      {figure(thermal.steadyCaseC.typical)}&#8239;°C ({figure(thermal.steadyCaseC.low)} to {figure(
        thermal.steadyCaseC.high
      )}): <strong>{TOUCH_WORDS[thermal.touch]}</strong>
    </dd>
  </div>
  <div>
    <dt>Limits, {thermal.material === 'plastic' ? 'plastic' : 'metal'}</dt>
    <dd>
      {TOUCH[thermal.material].hoursC}&#8239;°C for hours, {TOUCH[thermal.material].tenMinutesC}&#8239;°C ten minutes,
      {TOUCH[thermal.material].minuteC}&#8239;°C a minute, {TOUCH[thermal.material].tenSecondsC}&#8239;°C ten seconds
      (ISO 13732-1)
    </dd>
  </div>
  <div>
    <dt>After ejecting</dt>
    <dd>
      {thermal.coolsInS === null
        ? 'stays too warm to hold while it is plugged in: unplug it'
        : thermal.coolsInS === 0
          ? 'can be held at once; still warm'
          : `can be held for hours after ${duration(thermal.coolsInS)}`}
    </dd>
  </div>
  <div>
    <dt>Draws</dt>
    <dd>
      {quantity(thermal.watts, 'W')} at work, {quantity(thermal.idleW, 'W')} at rest; ejected and left in
      {quantity(thermal.ejectedWhPerDay.low, 'Wh')} to {quantity(thermal.ejectedWhPerDay.high, 'Wh')} a day: unplug it on
      battery
    </dd>
  </div>
  <div>
    <dt>Most uncertain</dt>
    <dd>
      {thermal.influences
        .slice(0, 3)
        .map(
          (i) => `${i.what} (${i.hotK >= 0 ? '+' : ''}${i.hotK.toFixed(1)} / ${i.coolK.toFixed(1)} K at the controller)`
        )
        .join('; ')}
    </dd>
  </div>
</dl>
<p class="small quiet">
  The plan’s figures are for {job
    ? `the job “${job}”${thermal.load.share < 1 ? ', as often as it comes' : ' over and over'}`
    : 'writing without end'} at
  {figure(thermal.ambientC)}&#8239;°C; the charts for what is chosen above. A hot case is judged by the house rule “Hot
  case”.
</p>

<style>
  dl > div {
    display: grid;
    grid-template-columns: 130px minmax(0, 1fr);
    gap: 12px;
    padding: 5px 0;
    border-top: 1px dashed var(--ash-line);
  }
  dt {
    color: var(--ash-soft);
  }
  dd {
    margin: 0;
  }
</style>
