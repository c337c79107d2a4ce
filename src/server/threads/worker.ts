import { setPriority } from 'node:os';
import workerpool from 'workerpool';
import { tasks } from './tasks';

// Of this thread alone, which only Linux can: nothing that is read at leisure keeps a core from what records.
if (process.platform === 'linux') setPriority(Number(process.env.HARD_PEDAL_YIELDS ?? 0));
workerpool.worker(tasks);
