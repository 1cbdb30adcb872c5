/** A person's own text as a chart may show it: charts read a few tags in their texts, links among them. */
export const plotText = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
