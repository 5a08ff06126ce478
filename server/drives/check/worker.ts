import { parentPort } from 'node:worker_threads';
import { checkDrive } from './check-drive';

/** Checks what it is sent, one drive after the other, beside the request loop. */
parentPort!.on('message', ({ number, value }: { number: number; value: unknown }) => {
  parentPort!.postMessage({ number, check: checkDrive(value) });
});
