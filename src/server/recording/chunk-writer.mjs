// Where nothing is bundled, a thread begins with plain JavaScript: from here on the sources are loaded as they are.
import { register } from 'tsx/esm/api';

register();
await import('./chunk-writer.ts');
