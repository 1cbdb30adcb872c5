/** How far a build is, in the order of the work. */
export const STAGES = ['planned', 'bought', 'assembled', 'formatted', 'benched', 'in service', 'retired'] as const;
export type BuildStage = (typeof STAGES)[number];
