import '@fontsource-variable/encode-sans/wdth.css';
import { App as AntApp, ConfigProvider } from 'antd';
import { createRoot } from 'react-dom/client';
import { antdTheme } from '../theme/antd-theme';
import '../theme/tokens.css';
import '../ui/ledger.css';
import './specimens.css';
import { Specimens } from './Specimens';

/** For those who change them, under `npm run dev`: no page of the shop leads here, and no build has it. */
createRoot(document.getElementById('root')!).render(
  <ConfigProvider theme={antdTheme('day')} wave={{ disabled: true }}>
    <AntApp>
      <Specimens />
    </AntApp>
  </ConfigProvider>,
);
