import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import styles from './bench.module.css';

/** What is wrong with a log, line by line. */
export function ProblemList({ texts }: { readonly texts: readonly string[] }) {
  return (
    <List className={styles.problems} role="alert">
      {texts.map((text) => (
        <ListItem key={text}>{text}</ListItem>
      ))}
    </List>
  );
}
