import multicastDns, { type MulticastDNS } from 'multicast-dns';
import { isIPv6 } from './addresses';

/** How long an answer may be kept, s. */
const TTL_S = 120;
/** How long another that has the name is listened for, ms. */
const PROBE_MS = 700;
const MOST_TRIES = 9;

export interface Announced {
  /** The name that is answered for. */
  name: string;
  stop: () => void;
}

/**
 * Answers on the network for a name below `.local` with this machine's addresses (RFC 6762). Where another machine has
 * the name already, the next of `emery-2.local` … is taken. Null where there is no multicast.
 */
export async function announce(
  wanted: string,
  addresses: () => string[],
  { port = 5353, through = addresses()[0] }: { port?: number; through?: string | undefined } = {},
): Promise<Announced | null> {
  const own = addresses();
  const dns = multicastDns({
    port,
    bind: '0.0.0.0',
    loopback: true,
    ...(through && !isIPv6(through) && { interface: through }),
  });
  let broken = false;
  dns.on('error', () => (broken = true));
  dns.on('warning', () => undefined);
  try {
    await new Promise<void>((ready, fail) => {
      dns.on('ready', () => ready());
      dns.on('error', fail);
      setTimeout(() => fail(new Error('no multicast')), 3000).unref();
    });
    const name = await freeName(dns, wanted, own);
    if (broken || name === null) throw new Error('no name');
    return answering(dns, name, addresses);
  } catch {
    dns.destroy();
    return null;
  }
}

const TYPES = ['A', 'AAAA'] as const;

function answering(dns: MulticastDNS, name: string, addresses: () => string[]): Announced {
  const records = (ttl: number) =>
    addresses().map((data) => ({
      name,
      type: isIPv6(data) ? ('AAAA' as const) : ('A' as const),
      ttl,
      flush: true,
      data,
    }));
  dns.on('query', ({ questions }) => {
    const asked = questions.filter((question) => question.name.toLowerCase() === name);
    const answers = records(TTL_S).filter(({ type }) =>
      asked.some(({ type: wanted }) => String(wanted) === type || String(wanted) === 'ANY'),
    );
    if (answers.length > 0) dns.respond(answers);
  });
  dns.respond(records(TTL_S));
  return {
    name,
    stop: () => {
      // Told once more with no time left, so that nobody goes on looking here.
      dns.respond(records(0), () => dns.destroy());
    },
  };
}

/** The first name of the row that no other machine answers for. */
async function freeName(dns: MulticastDNS, wanted: string, own: readonly string[]): Promise<string | null> {
  const base = wanted.replace(/\.local$/, '');
  for (let k = 1; k <= MOST_TRIES; k += 1) {
    const name = k === 1 ? wanted : `${base}-${k}.local`;
    if (!(await isTaken(dns, name, own))) return name;
  }
  return null;
}

function isTaken(dns: MulticastDNS, name: string, own: readonly string[]): Promise<boolean> {
  return new Promise((resolve) => {
    const end = (taken: boolean) => {
      clearTimeout(timer);
      dns.removeListener('response', hear);
      resolve(taken);
    };
    const hear = ({ answers }: { answers: readonly { name: string; type: string; data?: unknown }[] }) => {
      const others = answers.filter(
        (answer) =>
          answer.name.toLowerCase() === name &&
          TYPES.some((type) => type === answer.type) &&
          !own.includes(String(answer.data)),
      );
      if (others.length > 0) end(true);
    };
    const timer = setTimeout(() => end(false), PROBE_MS);
    dns.on('response', hear);
    dns.query({ questions: TYPES.map((type) => ({ name, type })) });
  });
}
