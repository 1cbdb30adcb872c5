import { analyseOperations } from './analyse';
import { attachmentOperations } from './attachments';
import { backupOperations } from './backup';
import { buildNamesOperations } from './build-names';
import { buildOperations } from './builds';
import { bundleOperations } from './bundle';
import { crateOperations } from './crates';
import { diagnoseOperations } from './diagnose';
import { diskOperations } from './disks';
import { eraseCommandOperations } from './erase-commands';
import { eventOperations } from './events';
import { exportOperations } from './export';
import { healthOperations } from './health';
import { houseRuleOperations } from './house-rules';
import { importOperations } from './import';
import { jobOperations } from './jobs';
import { ladderOperations } from './ladder';
import { listingOperations } from './listing';
import { modelOperations } from './models';
import { observationOperations } from './observations';
import { pairOperations } from './pairs';
import { pickableOperations } from './pickable';
import { planOperations } from './plan';
import { planFileOperations } from './plan-files';
import { quoteOperations } from './quotes';
import { rankOperations } from './rank';
import { rateOperations } from './rates';
import { restoreOperations } from './restore';
import { rigOperations } from './rig-runs';
import { runOperations } from './runs';
import { runSheetOperations } from './run-sheet';
import { searchOperations } from './search';
import { sheetOperations } from './sheets';
import { simulateOperations } from './simulate';
import { taskOperations } from './tasks';
import { troubleOperations } from './trouble';
import { undoOperations } from './undo';
import { unitOperations } from './units';
import type { AnyOperation } from '../operation';

/** Every operation of the API, by its name in the OpenAPI document. */
export const operations = {
  ...analyseOperations,
  ...attachmentOperations,
  ...backupOperations,
  ...buildNamesOperations,
  ...buildOperations,
  ...bundleOperations,
  ...crateOperations,
  ...diagnoseOperations,
  ...diskOperations,
  ...eraseCommandOperations,
  ...eventOperations,
  ...exportOperations,
  ...healthOperations,
  ...houseRuleOperations,
  ...importOperations,
  ...jobOperations,
  ...ladderOperations,
  ...listingOperations,
  ...modelOperations,
  ...observationOperations,
  ...pairOperations,
  ...pickableOperations,
  ...planOperations,
  ...planFileOperations,
  ...quoteOperations,
  ...rankOperations,
  ...rateOperations,
  ...restoreOperations,
  ...runOperations,
  ...rigOperations,
  ...runSheetOperations,
  ...searchOperations,
  ...sheetOperations,
  ...simulateOperations,
  ...taskOperations,
  ...troubleOperations,
  ...undoOperations,
  ...unitOperations
} satisfies Record<string, AnyOperation>;
