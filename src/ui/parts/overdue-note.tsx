import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import { shopTime } from '@/core/wording/shop-time';
import { channelTitle } from '@/core/quantities/channels';
import type { OverdueInstrument } from '@/server/views/job-view';
import styles from './parts.module.css';

/** Calibrations that are overdue, said where the reading is made. */
export function OverdueNote({ overdue }: { readonly overdue: readonly OverdueInstrument[] }) {
  if (overdue.length === 0) return null;
  return (
    <List className={styles.overdue} aria-label="Overdue calibrations">
      {overdue.map(({ channel, name, dueOn }) => (
        <ListItem key={channel}>
          {channelTitle(channel)}: {name} has been overdue since {shopTime(dueOn, 'date', { zone: 'UTC', today: '' })}.
          Its error counts double.
        </ListItem>
      ))}
    </List>
  );
}
