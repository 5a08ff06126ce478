import fc from 'fast-check';
import { networkOf } from './attempts';

const group = fc.integer({ min: 0, max: 0xffff });
/** One address in its many spellings (RFC 5952, 2). */
const spelt = (groups: readonly number[], from: number, many: number, padded: boolean, capital: boolean): string => {
  const text = groups.map((value) => (padded ? value.toString(16).padStart(4, '0') : value.toString(16)));
  const zeros = groups.slice(from, from + many).every((value) => value === 0);
  const all =
    zeros && many > 0 ? `${text.slice(0, from).join(':')}::${text.slice(from + many).join(':')}` : text.join(':');
  return capital ? all.toUpperCase() : all;
};

test('of IPv6 the first 64 bits count, however the address is written; of IPv4 all of it', () => {
  expect([networkOf('192.0.2.7'), networkOf('fd00::2'), networkOf('::1')]).toEqual([
    '192.0.2.7',
    'fd00:0:0:0',
    '0:0:0:0',
  ]);
  fc.assert(
    fc.property(
      fc.tuple(group, group, fc.constantFrom(0, 7), fc.constantFrom(0, 9)),
      fc.array(fc.oneof(group, fc.constant(0)), { minLength: 4, maxLength: 4 }),
      fc.record({ from: fc.integer({ min: 0, max: 7 }), many: fc.integer({ min: 0, max: 7 }) }),
      fc.boolean(),
      fc.boolean(),
      (network, host, { from, many }, padded, capital) => {
        const groups = [...network, ...host];
        const wanted = network.map((value) => value.toString(16)).join(':');
        expect(networkOf(spelt(groups, from, Math.min(many, 8 - from), padded, capital))).toBe(wanted);
      },
    ),
  );
});
