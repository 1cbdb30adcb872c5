import { serve } from '$lib/server/api/operation';
import { chooseHouseRules } from '$lib/server/api/operations';

export const PUT = serve(chooseHouseRules);
