import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { LOOKS_LEFT_OUT } from '../carbon.ts';

const SRC = join(import.meta.dirname, '../src');
const COMPONENTS = (readdirSync(SRC, { recursive: true }) as string[])
  .filter((file) => file.endsWith('.svelte'))
  .map((file) => ({ file, text: readFileSync(join(SRC, file), 'utf8') }));
/** Where a component of Carbon begins, as far as the end of its attributes. */
const CARBON =
  /<(Button|Select|TextInput|TextArea|NumberInput|Search|Tabs|Tab|ComboBox|MultiSelect|DatePicker|DatePickerInput|Tooltip|PasswordInput)\b(?:[^<>]|=>)*>/g;

describe('the looks of Carbon whose styles are left out', () => {
  it.each(LOOKS_LEFT_OUT)('no component asks for $dresses', ({ asks }) => {
    const askers = COMPONENTS.flatMap(({ file, text }) =>
      [...text.matchAll(CARBON)].filter(([tag]) => asks.test(tag)).map(() => file)
    );
    expect(askers).toEqual([]);
  });

  it('finds one that does', () => {
    const [fluid] = LOOKS_LEFT_OUT;
    expect(
      '<TextInput fluid labelText="Name" onchange={() => a} />'.match(CARBON)?.some((tag) => fluid!.asks.test(tag))
    ).toBe(true);
  });
});
