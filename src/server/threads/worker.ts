import workerpool from 'workerpool';
import { tasks } from './tasks';

workerpool.worker(tasks);
