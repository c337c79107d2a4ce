// A thread begins with plain JavaScript: from here on the sources are loaded as they are.
import { register } from 'tsx/esm/api';

register();
await import('./worker.ts');
