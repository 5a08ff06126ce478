import type { ThemeConfig } from 'antd';

/** Ant Design in Emery's dress. Colours repeat `tokens.css`, because the library computes shades from plain values. */
export const antdTheme: ThemeConfig = {
  token: {
    colorPrimary: '#1F5A4A',
    colorInfo: '#1B4F9C',
    colorLink: '#1B4F9C',
    colorWarning: '#8A5E08',
    colorError: '#A93324',
    colorSuccess: '#1F5A4A',
    colorText: '#172124',
    colorTextSecondary: '#55656A',
    colorTextPlaceholder: '#66757A',
    colorBgContainer: '#FBFCFB',
    colorBgElevated: '#FBFCFB',
    colorBgLayout: '#DDE2E1',
    colorBorder: '#A9B4B4',
    colorBorderSecondary: '#C3CBCB',
    borderRadius: 3,
    borderRadiusLG: 3,
    borderRadiusSM: 3,
    controlHeight: 40,
    controlHeightSM: 40,
    fontFamily: "'Encode Sans Variable', 'DejaVu Sans', sans-serif",
    fontSize: 15,
    boxShadow: '0 1px 0 rgba(23,33,36,.08), 0 6px 18px rgba(23,33,36,.14)',
    boxShadowSecondary: '0 1px 0 rgba(23,33,36,.08), 0 6px 18px rgba(23,33,36,.14)',
    motion: false,
    wireframe: true,
  },
  components: {
    Button: { fontWeight: 600, primaryShadow: 'none', defaultShadow: 'none', dangerShadow: 'none', contentFontSize: 15 },
    Segmented: { trackBg: '#DDE2E1', itemSelectedBg: '#FBFCFB', itemSelectedColor: '#1F5A4A', itemColor: '#3C4A4F', trackPadding: 2 },
    Select: { optionSelectedBg: '#E4EEEA', optionPadding: '9px 12px' },
    Modal: { titleFontSize: 18 },
    Tooltip: { colorBgSpotlight: '#23292B' },
  },
};
