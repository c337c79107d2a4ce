import { shownAs } from '../quantities/shown-as';
import type { AskedReading } from './from-readings';

type More = Omit<AskedReading, 'id' | 'title' | 'as' | 'channel'>;

/** A reading of a channel's gauge or meter, as the channel is shown. */
export const onGauge = (id: string, channel: string, title: string, more: More = {}): AskedReading => ({
  id,
  title,
  as: shownAs(channel),
  channel,
  ...more,
});

/** A time by a watch, s. */
export const byWatch = (id: string, title: string, more: More = {}): AskedReading => ({
  id,
  title,
  as: 'time',
  by: 'watch',
  ...more,
});

/** What ran into a vessel, m3. */
export const inVessel = (id: string, title: string, more: More = {}): AskedReading => ({
  id,
  title,
  as: 'volume',
  by: 'vessel',
  ...more,
});

/** Something counted as it happens. */
export const counted = (id: string, title: string, more: More = {}): AskedReading => ({
  id,
  title,
  as: 'count',
  by: 'count',
  ...more,
});
