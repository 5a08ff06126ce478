import type { ThemeConfig } from 'antd';
import { colourOf, type Light, targetPx, textScale } from './light';

/** Which token of `tokens.css` each colour of the component library is. */
const COLOURS = {
  colorPrimary: '--enamel',
  colorInfo: '--marking',
  colorLink: '--marking',
  colorWarning: '--brass',
  colorError: '--lead',
  colorSuccess: '--enamel',
  colorText: '--ink',
  colorTextHeading: '--ink',
  colorTextSecondary: '--muted',
  colorTextDescription: '--muted',
  colorTextDisabled: '--muted',
  colorTextPlaceholder: '--placeholder',
  colorTextLightSolid: '--on-enamel',
  colorBgBase: '--sheet',
  colorBgContainer: '--sheet',
  colorBgElevated: '--sheet',
  colorBgContainerDisabled: '--dim',
  colorBgLayout: '--zinc',
  colorBorder: '--field-edge',
  colorBorderSecondary: '--line',
  colorSplit: '--line',
  colorFillSecondary: '--dim',
  colorFillTertiary: '--dim',
  controlItemBgHover: '--hover-tint',
  colorErrorBg: '--lead-tint',
  colorWarningBg: '--brass-tint',
  colorInfoBg: '--marking-tint',
  colorSuccessBg: '--enamel-tint',
} as const;

const COMPONENT_COLOURS = {
  Segmented: { trackBg: '--zinc', itemSelectedBg: '--enamel', itemSelectedColor: '--on-enamel', itemColor: '--ink' },
  Select: { optionSelectedBg: '--enamel-tint', optionSelectedColor: '--ink' },
  Tooltip: { colorBgSpotlight: '--tip' },
  Button: { colorTextLightSolid: '--on-enamel', primaryColor: '--on-enamel', dangerColor: '--on-enamel' },
} as const;

/** The colours that the page has now; none where there is no style sheet. */
const coloursOf = (names: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(names).flatMap(([name, token]) => {
      const colour = colourOf(token);
      return colour === '' ? [] : [[name, colour]];
    }),
  );

/** Ant Design in Emery's dress, in the light that the page is in: the library works shades out from plain values. */
export function antdTheme(light: Light): ThemeConfig {
  const scale = textScale();
  const size = (px: number) => Math.round(px * scale);
  // Targets stay as large as they are where text is small, and grow with it.
  const high = Math.max(targetPx(), size(40));
  const shadow = light === 'sun' ? '0 0 0 2px #000' : '0 1px 0 rgba(0,0,0,.08), 0 6px 18px rgba(0,0,0,.18)';
  return {
    token: {
      ...coloursOf(COLOURS),
      borderRadius: 3,
      borderRadiusLG: 3,
      borderRadiusSM: 3,
      controlHeight: high,
      controlHeightSM: high,
      fontFamily: "'Encode Sans Variable', 'DejaVu Sans', sans-serif",
      fontSize: size(15),
      lineWidth: light === 'sun' ? 2 : 1,
      boxShadow: shadow,
      boxShadowSecondary: shadow,
      motion: false,
      wireframe: true,
    },
    components: {
      Button: {
        fontWeight: 600,
        primaryShadow: 'none',
        defaultShadow: 'none',
        dangerShadow: 'none',
        contentFontSize: size(15),
        ...coloursOf(COMPONENT_COLOURS.Button),
      },
      Slider: { handleSize: 22, handleSizeHover: 24, railSize: 8, controlSize: 22 },
      Switch: { trackHeight: high, trackMinWidth: 74, handleSize: high - 6, trackPadding: 3 },
      Segmented: { trackPadding: 0, ...coloursOf(COMPONENT_COLOURS.Segmented) },
      Select: { optionPadding: '9px 12px', ...coloursOf(COMPONENT_COLOURS.Select) },
      Modal: { titleFontSize: size(18) },
      Tooltip: { ...coloursOf(COMPONENT_COLOURS.Tooltip), colorTextLightSolid: '#fff' },
    },
  };
}
