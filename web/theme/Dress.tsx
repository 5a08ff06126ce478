import { App as AntApp, ConfigProvider } from 'antd';
import { Outlet } from 'react-router';
import { antdTheme } from './antd-theme';

/** What pages of the component library stand in. It stays while one such page follows another. */
export default function Dress() {
  return (
    <ConfigProvider theme={antdTheme} wave={{ disabled: true }}>
      <AntApp notification={{ placement: 'bottomLeft' }}>
        <Outlet />
      </AntApp>
    </ConfigProvider>
  );
}
