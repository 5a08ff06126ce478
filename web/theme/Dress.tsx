import { App as AntApp, ConfigProvider } from 'antd';
import { useMemo } from 'react';
import { Outlet } from 'react-router';
import { PhonesOffered } from '../take/phones-offered';
import { antdTheme } from './antd-theme';
import { useLight } from './light';

/** What pages of the component library stand in. It stays while one such page follows another. */
export default function Dress() {
  const light = useLight();
  const theme = useMemo(() => antdTheme(light), [light]);
  return (
    <ConfigProvider theme={theme} wave={{ disabled: true }}>
      <AntApp notification={{ placement: 'bottomLeft' }}>
        <PhonesOffered value={true}>
          <Outlet />
        </PhonesOffered>
      </AntApp>
    </ConfigProvider>
  );
}
