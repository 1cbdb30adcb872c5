import { serve } from '$lib/server/api/operation';
import { listingOperations } from '$lib/server/api/operations/listing';

export const POST = serve(listingOperations.readListing);
