import { invalid, Problem, problemHandler } from './problem';

/** What a request is answered that ended in an error. */
function answered(error: unknown, headersSent = false) {
  const sent = { status: 0, type: '', headers: {} as Record<string, string>, body: null as unknown, passedOn: false };
  const logged: object[] = [];
  const response = {
    headersSent,
    set: (name: string, value: string) => (sent.headers[name] = value),
    status: (status: number) => ((sent.status = status), response),
    type: (type: string) => ((sent.type = type), response),
    send: (text: string) => (sent.body = JSON.parse(text) as unknown),
  };
  const request = { log: { error: (what: object) => logged.push(what) } };
  problemHandler(error as Error, request as never, response as never, () => (sent.passedOn = true));
  return { ...sent, logged: logged.length };
}
const fault = (more: object, message = 'x') => Object.assign(new Error(message), more);
const DISK =
  'The disk that holds the shop is full. Free some space; nothing saved is lost, and this works once there is space.';
const BUSY = 'Somebody else is changing this right now. Nothing is lost; try again in a moment.';
const AWAY = 'The database is not answering. Nothing is lost; try again in a moment.';

test.each<[string, unknown, number, string, string]>([
  [
    'too large',
    fault({ type: 'entity.too.large', limit: 2_097_152 }),
    413,
    'Too large',
    'This is over the limit of 2 MB.',
  ],
  ['no JSON', fault({ type: 'entity.parse.failed' }, 'end'), 400, 'Not JSON', 'The request is not JSON: end'],
  [
    'a file that is not there',
    fault({ status: 404 }, '/home/x'),
    404,
    'Not found',
    'There is nothing at this address.',
  ],
  ['one the server refuses', fault({ status: 415 }, 'No such type'), 415, 'Not accepted', 'No such type'],
  ['of the request, 499', fault({ status: 499 }, 'Gone'), 499, 'Not accepted', 'Gone'],
  ['one of ours', new Problem(409, 'Saved elsewhere', 'Look first.'), 409, 'Saved elsewhere', 'Look first.'],
  ['a full disk by its code', fault({ code: 'ER_DISK_FULL' }), 507, 'Disk full', DISK],
  ['a full file', fault({ code: 'ER_RECORD_FILE_FULL' }), 507, 'Disk full', DISK],
  ['a full temporary file', fault({ code: 'ER_TEMP_FILE_WRITE_FAILURE' }), 507, 'Disk full', DISK],
  ['no space for a write', fault({ code: 'ER_ERROR_ON_WRITE' }), 507, 'Disk full', DISK],
  ['no space for a file', fault({ code: 'ENOSPC' }), 507, 'Disk full', DISK],
  [
    'a full disk by its number',
    fault({ code: 'ER_GET_ERRNO' }, 'Got error 28 "No space left"'),
    507,
    'Disk full',
    DISK,
  ],
  ['refused', fault({ code: 'ECONNREFUSED' }), 503, 'Database not reachable', AWAY],
  ['reset', fault({ code: 'ECONNRESET' }), 503, 'Database not reachable', AWAY],
  ['a pipe that broke', fault({ code: 'EPIPE' }), 503, 'Database not reachable', AWAY],
  ['too late', fault({ code: 'ETIMEDOUT' }), 503, 'Database not reachable', AWAY],
  ['a connection lost', fault({ code: 'PROTOCOL_CONNECTION_LOST' }), 503, 'Database not reachable', AWAY],
  ['going down', fault({ code: 'ER_SERVER_SHUTDOWN' }), 503, 'Database not reachable', AWAY],
  ['too many connections', fault({ code: 'ER_CON_COUNT_ERROR' }), 503, 'Database not reachable', AWAY],
  ['a wait for a lock', fault({ code: 'ER_LOCK_WAIT_TIMEOUT' }), 503, 'Busy', BUSY],
  ['a deadlock', fault({ code: 'ER_LOCK_DEADLOCK' }), 503, 'Busy', BUSY],
  ['a full queue', fault({ code: 'POOL_ENQUEUELIMIT' }), 503, 'Database not reachable', AWAY],
  ['a fault of ours', new TypeError('x'), 500, 'Fault in Emery', 'Something went wrong in Emery. It is in the log.'],
  [
    'another code',
    fault({ code: 'ER_DUP_ENTRY' }),
    500,
    'Fault in Emery',
    'Something went wrong in Emery. It is in the log.',
  ],
])('%s', (_, error, status, title, detail) => {
  expect(answered(error)).toEqual({
    status,
    type: 'application/problem+json',
    headers: status === 503 ? { 'Retry-After': '1' } : {},
    body: { type: 'about:blank', title, status, detail },
    passedOn: false,
    logged: status >= 500 ? 1 : 0,
  });
});

test('fields that are not accepted are told one by one; an answer under way is left alone', () => {
  const errors = [{ path: 'rows[1]', message: 'length: is missing' }];
  expect(answered(invalid(errors)).body).toMatchObject({ status: 422, errors });
  expect(answered(new Error('x'), true)).toMatchObject({ passedOn: true, body: null, logged: 0 });
});
