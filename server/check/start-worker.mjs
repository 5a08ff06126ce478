// A thread has no TypeScript of its own, whatever the process that starts it was started with.
import { register } from 'tsx/esm/api';

register();
await import('./worker.ts');
