import { serve } from '$lib/server/api/operation';
import { houseRuleOperations } from '$lib/server/api/operations/house-rules';

export const PUT = serve(houseRuleOperations.chooseHouseRules);
