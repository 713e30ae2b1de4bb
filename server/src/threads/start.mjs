// A worker thread does not inherit the TypeScript loader of the process: it is registered here, first.
import { register } from 'tsx/esm/api';

register();
await import('./thread.ts');
