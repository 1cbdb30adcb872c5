/** How far a build is, in the order of the work. */
export const STAGES = ['planned', 'bought', 'assembled', 'formatted', 'benched', 'in service', 'retired'] as const;
export type BuildStage = (typeof STAGES)[number];

/** What a stage is called where people read it; stored plans and the API say `benched` for measured. */
export const STAGE_LABEL: Record<BuildStage, string> = {
  planned: 'planned',
  bought: 'bought',
  assembled: 'assembled',
  formatted: 'formatted',
  benched: 'measured',
  'in service': 'in service',
  retired: 'retired'
};
