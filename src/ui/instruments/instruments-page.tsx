'use client';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { calibrationState } from '@/core/instruments/instrument';
import { instrumentFromSite, type SiteInstrument } from '@/core/formats/site-file';
import { channelTitle } from '@/core/quantities/channels';
import { PageHead } from '@/ui/shell/frame';
import { ShellControls } from '@/ui/shell/key-map';
import { send } from '@/ui/shell/request';
import type { TakenOff } from '@/data/settings';
import { InstrumentForm } from './instrument-form';
import styles from './instruments.module.css';

interface Props {
  readonly instruments: readonly SiteInstrument[];
  /** Channels whose instrument cannot be read: the stand-in's own counts there. */
  readonly unreadable: readonly string[];
  /** Taken off within the day, to be put back. */
  readonly takenOff: readonly TakenOff[];
  /** ISO date. */
  readonly today: string;
}

function dueText(instrument: SiteInstrument, today: string): { readonly text: string; readonly overdue: boolean } {
  const state = calibrationState(instrumentFromSite(instrument), today);
  switch (state.kind) {
    case 'in-date':
      return { text: `due ${state.dueOn}`, overdue: false };
    case 'overdue':
      return { text: `overdue since ${state.dueOn}: its class counts twice`, overdue: true };
    case 'unknown':
      return { text: 'no due date', overdue: false };
  }
}

/** The bench's instruments, one a channel: what they can show, how well, and until when that is proved. */
export function InstrumentsPage({ instruments, unreadable, takenOff, today }: Props) {
  const router = useRouter();
  const [edited, setEdited] = useState<SiteInstrument | 'new' | null>(null);
  const [trouble, setTrouble] = useState('');
  const overdue = instruments.filter((each) => dueText(each, today).overdue).length;
  const done = () => {
    setEdited(null);
    router.refresh();
  };
  const change = async (body: object, method: 'DELETE' | 'POST') => {
    setTrouble('');
    try {
      await send('/api/instruments', body, method);
      router.refresh();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <>
      <PageHead
        title="Instruments"
        actions={
          <>
            <ShellControls />
            <Button variant="contained" color="primary" onClick={() => setEdited('new')}>
              Mount an instrument
            </Button>
          </>
        }
      >
        <p>
          {overdue === 0
            ? 'Every calibration is in date.'
            : `${overdue} ${overdue === 1 ? 'calibration is' : 'calibrations are'} overdue.`}
        </p>
      </PageHead>
      {trouble && <p role="alert">{trouble}</p>}
      {unreadable.length > 0 && (
        <List className={styles.takenOff} aria-label="Cannot be read">
          {unreadable.map((channel) => (
            <ListItem key={channel}>
              What is mounted on {channelTitle(channel)} cannot be read: the stand-in’s own counts there.
              <Button
                onClick={() => void change({ channel }, 'DELETE')}
                aria-label={`Take off what cannot be read on ${channelTitle(channel)}`}
              >
                Take it off
              </Button>
            </ListItem>
          ))}
        </List>
      )}
      {takenOff.length > 0 && (
        <List className={styles.takenOff} aria-label="Taken off within the day">
          {takenOff.map(({ id, instrument }) => (
            <ListItem key={id}>
              {instrument.name} was taken off {channelTitle(instrument.channel).toLowerCase()}: the stand-in’s own
              counts there now.
              <Button onClick={() => void change({ takenOff: id }, 'POST')} aria-label={`Put ${instrument.name} back`}>
                Put it back
              </Button>
            </ListItem>
          ))}
        </List>
      )}
      {edited !== null && (
        <InstrumentForm
          key={edited === 'new' ? 'new' : edited.channel}
          instrument={edited === 'new' ? null : edited}
          onDone={done}
          onCancel={() => setEdited(null)}
        />
      )}
      {instruments.length === 0 ? (
        <p className={styles.empty}>
          No instrument is mounted: the stand-in’s own are used. Mount the first one to judge with its class.
        </p>
      ) : (
        <Table className={styles.table}>
          <TableHead>
            <TableRow>
              <TableCell>Channel</TableCell>
              <TableCell>Instrument</TableCell>
              <TableCell>Range</TableCell>
              <TableCell>Division</TableCell>
              <TableCell>Class</TableCell>
              <TableCell>Calibration</TableCell>
              <TableCell>
                <span className={styles.hidden}>What to do</span>
              </TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {instruments.map((each) => {
              const due = dueText(each, today);
              return (
                <TableRow key={each.channel}>
                  <TableCell component="th" scope="row">
                    {channelTitle(each.channel)}
                  </TableCell>
                  <TableCell>{each.name}</TableCell>
                  <TableCell data-label="Range">
                    <code>
                      {each.range} {each.unit}
                    </code>
                  </TableCell>
                  <TableCell data-label="Division">
                    <code>
                      {each.resolution} {each.unit}
                    </code>
                  </TableCell>
                  <TableCell data-label="Class">
                    <code>{each.classPercent} %</code> of {each.classOf === 'full-scale' ? 'full scale' : 'reading'}
                  </TableCell>
                  <TableCell data-label="Calibration" className={due.overdue ? styles.overdue : undefined}>
                    {due.text}
                  </TableCell>
                  <TableCell className={styles.actions}>
                    <Button onClick={() => setEdited(each)}>Change</Button>
                    <Button onClick={() => void change({ channel: each.channel }, 'DELETE')}>Take off</Button>
                  </TableCell>
                </TableRow>
              );
            })}
          </TableBody>
        </Table>
      )}
    </>
  );
}
