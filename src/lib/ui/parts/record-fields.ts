import type { Field } from '#core/parts/form/form';
import { formFields } from '#core/parts/form/form-fields';
import { exchangeRateSchema } from '#core/parts/exchange-rate';
import { jobSchema } from '#core/parts/job';
import { knownPairSchema } from '#core/parts/known-pair';
import { quoteSchema } from '#core/parts/quote';
import { unitSchema } from '#core/parts/item';

type Option = { value: string; label: string };

/** A text field whose value is chosen by its name. */
const chosen = (field: Field, options: readonly Option[]): Field => {
  const { key, title, required } = field;
  return { key, title, required, type: 'choice', options: [...options] };
};

/** The form of a quote; vendors named before are offered. */
export const quoteFields = (vendors: readonly string[]): Field[] =>
  formFields(quoteSchema.omit({ partId: true })).map((field) =>
    field.key === 'vendor' && field.type === 'text' ? { ...field, suggestions: [...new Set(vendors)] } : field
  );

/** The form of one unit; the build it is in is chosen among the crate's. */
export const unitFields = (builds: readonly { id: string; tag: string; name: string }[]): Field[] =>
  formFields(unitSchema.omit({ id: true, modelId: true })).map((field) =>
    field.key === 'buildId'
      ? chosen(
          field,
          builds.map(({ id, tag, name }) => ({ value: id, label: `${tag} ${name}` }))
        )
      : field
  );

/** The form of a known pair as seen from a drive (the bridge is typed) or from an enclosure (the drive is chosen). */
export const pairFields = (drives: readonly { id: string; name: string }[], fromEnclosure: boolean): Field[] =>
  formFields(knownPairSchema.omit({ driveId: true, drive: true })).flatMap((field): Field[] => {
    if (!fromEnclosure || field.key !== 'bridge') return [field];
    return [
      chosen(
        { ...field, key: 'driveId', title: 'Drive' },
        drives.map(({ id, name }) => ({ value: id, label: name }))
      )
    ];
  });

/** The form of an exchange rate into the crate's currency. */
export const rateFields = (to: string): Field[] =>
  formFields(exchangeRateSchema.omit({ to: true })).map((field) =>
    field.key === 'from'
      ? { ...field, title: '1 of' }
      : field.key === 'rate'
        ? { ...field, title: `is in ${to}` }
        : field
  );

/** The form of a job. */
export const jobFields = (): Field[] => formFields(jobSchema.omit({ id: true }));
