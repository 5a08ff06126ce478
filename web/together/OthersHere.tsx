import { EyeOutlined, LaptopOutlined, MobileOutlined, TabletOutlined } from '@ant-design/icons';
import { Button, Popover } from 'antd';
import { follow, followed, others } from '../live/here';
import { STAGES } from '../stages';
import { useDrive } from '../state/bench';
import { useStore } from '../state/store';
import { useNarrow } from '../ui/use-narrow';
import { TOGETHER } from './words';
import './together.css';
import type { DeviceKind, HereDevice } from '@emery/core/api';
import { type Drive, pulleyLabel } from '@emery/core/drive';

const ICONS: Record<DeviceKind, typeof MobileOutlined> = {
  phone: MobileOutlined,
  tablet: TabletOutlined,
  computer: LaptopOutlined,
};

/** Where a device is on a drive; null where it shows none of it. */
const tabAt = ({ tabs }: HereDevice, drive: string) => tabs.find((tab) => tab.drive === drive) ?? null;

const partWords = (drive: Drive, part: string) =>
  drive.stations.some(({ pulleys }) => pulleys.some(({ id }) => id === part)) ? pulleyLabel(drive, part) : '';

/** The other devices on this drive: who, at which stage and part, and whether to follow what one points at. */
export function OthersHere({ id }: { id: string }) {
  const here = useStore(others).filter((device) => tabAt(device, id) !== null);
  const followedNow = useStore(followed)?.device ?? null;
  const drive = useDrive((now) => now);
  // The head of a phone has room for how many.
  const narrow = useNarrow();
  if (here.length === 0) return null;
  const list = (
    <ul className="others-list">
      {here.map((device) => {
        const tab = tabAt(device, id);
        const Icon = ICONS[device.kind];
        const isFollowed = followedNow === device.device;
        return (
          <li key={device.device}>
            <Icon aria-label={TOGETHER.device(device.kind)} />
            <span>
              <strong>{TOGETHER.someone(device.name, device.kind)}</strong>
              <br />
              <span className="quiet">
                {TOGETHER.where(
                  STAGES.find(({ id: stage }) => stage === tab?.stage)?.name ?? '',
                  partWords(drive, tab?.part ?? ''),
                )}
              </span>
            </span>
            <Button
              aria-pressed={isFollowed}
              type={isFollowed ? 'primary' : 'default'}
              icon={<EyeOutlined />}
              onClick={() => follow(isFollowed ? null : device.device)}
            >
              {isFollowed ? TOGETHER.stop : TOGETHER.follow}
            </Button>
          </li>
        );
      })}
    </ul>
  );
  const [first] = here;
  const Icon = ICONS[first?.kind ?? 'computer'];
  return (
    <Popover content={list} trigger="click" placement="bottomRight">
      <Button
        className={`others-here${followedNow ? ' is-following' : ''}`}
        icon={<Icon />}
        aria-label={TOGETHER.here(here.length)}
      >
        {here.length === 1 && first && !narrow ? TOGETHER.someone(first.name, first.kind) : here.length}
      </Button>
    </Popover>
  );
}
