import { theme, type ThemeConfig } from "antd";
import { paletteOf } from "./palette";

/** The components in the colours of the palette. */
export function themeOf(dark: boolean): ThemeConfig {
  const palette = paletteOf(dark);
  return {
    algorithm: dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      colorPrimary: palette.walnut,
      colorInfo: palette.woad,
      colorLink: palette.woad,
      colorError: palette.madder,
      colorWarning: palette.weld,
      colorSuccess: palette.good,
      colorTextBase: palette.ink,
      colorBgBase: palette.paper,
      colorBgContainer: palette.field,
      colorBgElevated: palette.raised,
      colorBorder: palette["line-strong"],
      colorBorderSecondary: palette.line,
      colorTextPlaceholder: palette.placeholder,
      colorTextDescription: palette.quiet,
      colorTextLightSolid: palette.paper,
      fontFamily: "'Literata Variable', Georgia, serif",
      fontSize: 15,
      borderRadius: 2,
      controlHeight: 36,
      wireframe: false,
      // Whoever wants no motion gets none: style sheets say it of ours, this of the components.
      motion: !matchMedia("(prefers-reduced-motion: reduce)").matches,
    },
    components: {
      Segmented: {
        trackBg: palette.trough,
        itemSelectedBg: dark ? palette.chosen : palette.field,
        itemColor: palette.ink,
      },
      Select: {
        optionSelectedBg: palette.chosen,
        optionActiveBg: palette.hovered,
        controlItemBgActiveHover: palette["chosen-hovered"],
      },
      Button: { primaryShadow: "none", defaultShadow: "none", fontWeight: 600 },
      Tooltip: { colorBgSpotlight: palette.note, colorTextLightSolid: palette["note-ink"] },
    },
  };
}
