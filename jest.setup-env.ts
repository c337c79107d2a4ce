import { TextDecoder, TextEncoder } from 'node:util';

// jsdom lacks both.
Object.assign(globalThis, { TextDecoder, TextEncoder });
