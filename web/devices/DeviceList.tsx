import { App as AntApp, Button } from 'antd';
import { agoWords, ROLE_WORDS } from '../access/words';
import { ask } from '../api/client';
import { useAccessChange, useDevices } from '../api/access';
import { PEOPLE } from './words';
import { useNow } from '../ui/use-now';
import type { DeviceListed } from '@emery/core/api';

/** The devices that are signed in; each can be shut out at once. */
export function DeviceList({ all }: { all: boolean }) {
  const { data, error } = useDevices();
  const { now } = useNow(Infinity);
  return (
    <section className="sheet" aria-label="Signed in">
      <h2>{all ? 'Devices signed in' : 'Your devices'}</h2>
      {error && <p className="finding is-fault">{error.message}</p>}
      {data?.devices.length === 0 && <p>{PEOPLE.noDevice}</p>}
      <ul className="rows">
        {data?.devices.map((device) => (
          <DeviceRow key={device.id} device={device} now={now} />
        ))}
      </ul>
    </section>
  );
}

function DeviceRow({ device, now }: { device: DeviceListed; now: number }) {
  const { id, name, role, agent, address, lastSeenAt, here } = device;
  const { message } = AntApp.useApp();
  const shut = useAccessChange(() => ask('DELETE', `/access/devices/${id}`));
  return (
    <li aria-label={`${name}, ${agent}`}>
      <strong className="row-name">
        {name} <span className="quiet">{ROLE_WORDS[role]}</span>
      </strong>
      <span>
        {agent}, {address}
      </span>
      <span>{here ? 'this device' : `seen ${agoWords(lastSeenAt, now)}`}</span>
      {!here && (
        <Button
          danger
          loading={shut.isPending}
          onClick={() => shut.mutate(undefined, { onError: (error) => void message.error(error.message) })}
        >
          Shut out
        </Button>
      )}
    </li>
  );
}
