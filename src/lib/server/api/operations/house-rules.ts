import { operation } from '../operation';
import { CRATE, inCrate, version, changed } from './common';
import { z } from 'zod';
import * as crates from '../../repositories/crates';
import { HOUSE_RULE_IDS, HOUSE_RULES, type HouseRuleId } from '#core/house-rules/house-rules';

const sides = z.strictObject(
  Object.fromEntries(
    HOUSE_RULE_IDS.map((school) => [
      school,
      z
        .enum(Object.keys(HOUSE_RULES[school].choices) as [string, ...string[]])
        .nullable()
        .optional()
        .describe(`${HOUSE_RULES[school].question}; by default ${HOUSE_RULES[school].standard}`)
    ])
  ) as Record<HouseRuleId, z.ZodOptional<z.ZodNullable<z.ZodEnum>>>
);

/** The operations at `…/house-rules`, by their names in the OpenAPI document. */
export const houseRuleOperations = {
  chooseHouseRules: operation({
    method: 'put',
    path: `${CRATE}/house-rules`,
    summary: 'Choose options of house rules; null goes back to the default. Rules that are not named stay as they are.',
    params: inCrate,
    body: z.strictObject({
      version,
      rules: sides.refine((rules) => Object.keys(rules).length > 0, 'must name at least one house rule')
    }),
    response: changed,
    handle: ({ db, params, body, by, at }) =>
      crates.chooseRules(db, {
        id: params.crateId,
        version: body.version,
        rules: body.rules as Parameters<typeof crates.chooseRules>[1]['rules'],
        by,
        at
      })
  })
};
