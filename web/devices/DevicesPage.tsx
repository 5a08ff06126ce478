import { Spin } from 'antd';
import { useMe } from '../api/access';
import { PageHeader } from '../ui/PageHeader';
import { useTitle } from '../ui/use-title';
import { AuditList } from './AuditList';
import { CalendarAddresses } from './CalendarAddresses';
import { DeviceList } from './DeviceList';
import { OwnAccount } from './OwnAccount';
import { People } from './People';
import { SharePanel } from './SharePanel';
import '../ui/ledger.css';
import '../shop/shop.css';
import './devices.css';

/** Who reaches the shop from where: sharing, people, devices, the calendar's addresses, and what was done. */
export default function DevicesPage() {
  const me = useMe();
  useTitle('Devices');
  return (
    <div className="shop">
      <PageHeader>
        <h1 className="shop-name">Devices</h1>
      </PageHeader>
      {me === null ? (
        <Spin className="page-spin" />
      ) : (
        <main className="devices">
          <div className="devices-column">
            {!me.machine && <OwnAccount me={me} />}
            <SharePanel machine={me.machine} />
            {me.role === 'owner' && <People />}
          </div>
          <div className="devices-column">
            <DeviceList all={me.role === 'owner'} />
            {(me.role === 'owner' || me.role === 'bench') && <CalendarAddresses />}
            {me.role === 'owner' && <AuditList />}
          </div>
        </main>
      )}
    </div>
  );
}
