import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { MappedColumn } from '@/core/formats/column-mapping';
import { unitOfHeader, type GuessedColumn, type Inference } from '@/core/formats/guess-mapping';
import { findChannel, channelTitle } from '@/core/quantities/channels';
import { measurementUnits, unitOf } from '@/core/quantities/measurement-unit';
import { Choice } from '@/ui/parts/choice';
import type { OfferedChannels } from './offered-channels';
import styles from './bench.module.css';

const inferenceWords: Readonly<Record<Inference, string>> = {
  'channel-from-words': 'guessed from its words',
  'unit-assumed': 'unit assumed',
  'unit-open': 'no unit said: check which',
  'unit-misfits': 'its figures fit the unit badly: check it',
  'time-unit-open': 'whole numbers without a unit: check which',
  'unit-unknown': 'its unit is not known: say which it is',
  'scale-questioned': 'more than anything here has: is the unit right?',
  clock: 'a clock, read as seconds',
  'days-by-figures': 'day numbers of a spreadsheet',
  'milliseconds-by-rate': 'milliseconds, by its rate',
  'sign-turned': 'negative: sign turned',
  'read-as-absolute': 'starts at the atmosphere: read as absolute',
  'reference-open': 'makes sense as it is called and as absolute: check which',
  'not-understood': 'not understood: kept as it is',
};

interface TableProps {
  readonly headers: readonly string[];
  readonly mapping: readonly MappedColumn[];
  /** How each column was guessed; null where the mapping was remembered. */
  readonly guesses: readonly GuessedColumn[] | null;
  readonly offered: readonly OfferedChannels[];
  readonly onChange: (mapping: readonly MappedColumn[]) => void;
}

/** What every column of a log is, for the technician to correct. */
export function MappingTable({ headers, mapping, guesses, offered, onChange }: TableProps) {
  return (
    <Table className={styles.mapping}>
      <TableHead>
        <TableRow>
          <TableCell>In the file</TableCell>
          <TableCell>Is</TableCell>
          <TableCell>Unit</TableCell>
          <TableCell>Read as</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {headers.map((header, at) => (
          <MappingRow
            key={`${header}${at}`}
            header={header}
            column={mapping[at]}
            offered={offered}
            said={(guesses?.[at].inferred ?? []).map((each) => inferenceWords[each])}
            onChange={(to) => onChange(mapping.map((each, other) => (other === at ? to : each)))}
          />
        ))}
      </TableBody>
    </Table>
  );
}

interface RowProps {
  readonly header: string;
  readonly column: MappedColumn;
  readonly offered: readonly OfferedChannels[];
  readonly said: readonly string[];
  readonly onChange: (to: MappedColumn) => void;
}

/** One column of the file: what it is, in which unit, which way round. */
function MappingRow({ header, column, offered, said, onChange }: RowProps) {
  const is = column.use === 'channel' ? column.channel : column.use;
  const channel = column.use === 'channel' ? findChannel(column.channel) : undefined;
  const dimension = column.use === 'time' ? 'time' : channel && unitOf(channel.fileUnit).dimension;
  const choose = (id: string) => {
    if (id === 'skip' || id === 'own') return onChange({ use: id });
    if (id === 'time') return onChange({ use: 'time', unit: unitOfHeader(header, 'time')?.symbol ?? 's' });
    const fileUnit = findChannel(id)?.fileUnit ?? '1';
    // What the header says stands, whatever it is chosen to be.
    const unit = unitOfHeader(header, unitOf(fileUnit).dimension)?.symbol ?? fileUnit;
    onChange({ use: 'channel', channel: id, unit, sign: 1, absolute: false });
  };
  const way =
    column.use === 'channel' ? (column.absolute ? 'absolute' : column.sign < 0 ? 'negative' : 'plain') : 'plain';
  return (
    <TableRow>
      <TableCell component="th" scope="row">
        <code>{header}</code>
        {said.length > 0 && <small>{said.join(', ')}</small>}
      </TableCell>
      <TableCell>
        <Choice label={`What ${header} is`} value={is} onChange={choose}>
          <option value="own">kept as it is</option>
          <option value="skip">left out</option>
          <option value="time">Time</option>
          {offered.map(({ title, ids }) => (
            <optgroup key={title} label={title}>
              {ids.map((id) => (
                <option key={id} value={id}>
                  {channelTitle(id)}
                </option>
              ))}
            </optgroup>
          ))}
        </Choice>
      </TableCell>
      <TableCell>
        {dimension && (column.use === 'channel' || column.use === 'time') && (
          <Choice label={`Unit of ${header}`} value={column.unit} onChange={(unit) => onChange({ ...column, unit })}>
            {measurementUnits
              .filter((unit) => unit.dimension === dimension)
              .map((unit) => (
                <option key={unit.symbol} value={unit.symbol}>
                  {unit.symbol}
                </option>
              ))}
          </Choice>
        )}
      </TableCell>
      <TableCell>
        {column.use === 'channel' && (
          <Choice
            label={`How ${header} is read`}
            value={way}
            onChange={(chosen) =>
              onChange({ ...column, sign: chosen === 'negative' ? -1 : 1, absolute: chosen === 'absolute' })
            }
          >
            <option value="plain">{channel?.reference ?? 'as it is'}</option>
            <option value="negative">sign turned</option>
            {channel?.reference !== undefined && <option value="absolute">absolute</option>}
          </Choice>
        )}
      </TableCell>
    </TableRow>
  );
}
