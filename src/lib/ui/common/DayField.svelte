<script lang="ts">
  import { DatePicker, DatePickerInput } from 'carbon-components-svelte';
  import type { ComponentProps } from 'svelte';
  import { readDay } from '#core/quantities/days';
  import { day } from '#core/quantities/format';
  import { dayHere } from './day-here';

  type Props = {
    label: string;
    /** The day, as `2026-11-27`; empty where none is chosen. */
    value: string;
    /** The last day that can be chosen, as `2026-11-27`. */
    last?: string;
    invalid?: boolean;
    invalidText?: string;
    helperText?: string;
    placeholder?: string;
    onpick: (value: string) => unknown;
  };
  /** A day: picked in the calendar, or typed as `27 Nov 2026`, `27.11.2026` or `2026-11-27`. */
  let { label, value, last, invalid, invalidText, helperText, placeholder, onpick }: Props = $props();
  /** What is wrong with what was typed: the calendar clears its field, so that it is repeated beside it. */
  let wrong = $state('');
  let typed = '';
  let calendar = $state.raw<ComponentProps<DatePicker>['calendar']>(null);
  // The week begins on Monday, as ISO 8601 counts it.
  $effect(() => calendar?.set('locale', { firstDayOfWeek: 1 }));

  /** The calendar counts in the reader's own days. */
  function dateOf(text: string): Date | undefined {
    const iso = readDay(text);
    return iso === undefined ? undefined : new Date(`${iso}T00:00:00`);
  }
  function picked(dates: readonly (Date | undefined)[]): void {
    const [date] = dates;
    const next = date ? dayHere(date) : '';
    if (date) wrong = '';
    if (next !== value) onpick(next);
  }
  function left(): void {
    const text = typed.trim();
    if (text === '') return;
    typed = '';
    const iso = readDay(text);
    const late = iso !== undefined && last !== undefined && iso > last;
    if (iso === undefined) wrong = `“${text}” is no day; write it like 27 Nov 2026.`;
    else wrong = late ? `${day(iso)} is later than ${day(last)}.` : '';
    if (wrong !== '' && value !== '') onpick('');
  }
</script>

<DatePicker
  class="day-field"
  bind:calendar
  datePickerType="single"
  dateFormat="j M Y"
  value={value === '' ? '' : day(value)}
  maxDate={last === undefined ? null : day(last)}
  flatpickrProps={{ static: true, parseDate: dateOf as (text: string) => Date, errorHandler: () => undefined }}
  on:change={(e) => {
    if (typeof e.detail === 'object') picked(e.detail.selectedDates);
  }}
>
  <DatePickerInput
    labelText={label}
    placeholder={placeholder ?? '27 Nov 2026'}
    pattern=".*"
    {helperText}
    invalid={invalid === true || wrong !== ''}
    invalidText={wrong || invalidText || ''}
    on:input={(e) => {
      typed = (e.target as HTMLInputElement).value;
      wrong = '';
    }}
    on:blur={left}
  />
</DatePicker>

<style>
  /* As wide as the fields beside it; Carbon gives a date a width of its own. */
  :global(.day-field .bx--date-picker.bx--date-picker--single),
  :global(.day-field .bx--date-picker-container),
  :global(.day-field .bx--date-picker.bx--date-picker--single .bx--date-picker__input) {
    width: 100%;
    max-width: none;
  }
</style>
