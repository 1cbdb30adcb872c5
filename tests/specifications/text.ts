/** One text from a box or a page, and what a careful person reads in it. */
export type JudgedText = {
  name: string;
  kind: 'drive' | 'enclosure' | 'host' | 'cable' | 'pad' | 'alternative';
  text: string;
  /** What the text states once and clearly, by the field it belongs to. Lists are compared without their order; objects by the keys given here. */
  stated: Record<string, unknown>;
  /** What the text leaves open or says in two ways: the field, and the answers that must be among those offered. */
  asked?: Record<string, unknown[]>;
};
