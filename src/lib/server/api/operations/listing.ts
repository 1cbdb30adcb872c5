import { z } from 'zod';
import { expectSchema } from '#core/listing/device';
import { listingReportSchema, LONGEST_LISTING, readListing } from '#core/listing/read';
import { operation } from '../operation';

/** The operations at `…/listing`, by their names in the OpenAPI document. */
export const listingOperations = {
  readListing: operation({
    method: 'post',
    path: '/api/listing',
    summary:
      'Read what Linux, macOS or Windows list of their disks, as text or JSON, and find the one that is meant. Nothing of it is kept.',
    bodyLimit: 4 * LONGEST_LISTING,
    body: z.strictObject({
      text: z.string().max(LONGEST_LISTING, 'is longer than any listing'),
      expect: expectSchema.optional()
    }),
    response: listingReportSchema,
    handle: ({ body: { text, expect } }) => Promise.resolve(readListing(text, expect))
  })
};
