import type { RankReport } from '#core/compare/ranking/request';
import { guard } from '#core/tables/table';
import { VERDICT_WORD } from '../common/verdicts';
import type { RankNames } from './names';

/** A number stays one, below nought too; a text that a spreadsheet would run is guarded. */
const quote = (cell: string | number) => {
  const text = String(cell);
  return `"${(/^-?\d+(?:\.\d+)?$/.test(text) ? text : guard(text)).replaceAll('"', '""')}"`;
};

/** Writes the rows of a ranking as CSV, units in the headings; cells that a spreadsheet would run are guarded. */
export function rankCsv({ rows, currency }: RankReport, { nameOf, portOf }: RankNames): string {
  const money = currency ?? 'no currency';
  const lines = [
    [
      'Rank',
      'Computer',
      'Port',
      'Cable',
      'Enclosure',
      'Drive',
      'Verdict',
      'Write after the cache (MB/s)',
      'Read (MB/s)',
      'The job takes (s)',
      `Price (${money})`,
      `Price of a terabyte (${money}/TB)`,
      `To pay (${money})`,
      'Score'
    ],
    ...rows.map((row, i) => [
      i + 1,
      nameOf(row.hostId),
      portOf(row),
      row.cableId ? nameOf(row.cableId) : '',
      nameOf(row.enclosureId),
      nameOf(row.driveId),
      VERDICT_WORD[row.verdict],
      row.sustainedWrite.typical.toFixed(1),
      row.read.typical.toFixed(1),
      row.seconds.toFixed(1),
      row.cost?.toFixed(2) ?? '',
      row.perTB?.toFixed(2) ?? '',
      row.spend?.toFixed(2) ?? '',
      row.score.toFixed(4)
    ])
  ];
  return `\ufeff${lines.map((cells) => cells.map(quote).join(',')).join('\r\n')}\r\n`;
}
