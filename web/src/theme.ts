import { theme, type ThemeConfig } from "antd";

/**
 * Dye plants on unbleached cloth: calico ground, walnut, woad, madder, weld, and iron-black ink. The drawings take
 * the same colours from theme.css.
 */
export function themeOf(dark: boolean): ThemeConfig {
  const ink = dark ? "#f1e9d8" : "#211d19";
  const walnut = dark ? "#d3b48c" : "#553820";
  const woad = dark ? "#93bad8" : "#2c5a80";
  return {
    algorithm: dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      colorPrimary: walnut,
      colorInfo: woad,
      colorLink: woad,
      colorError: dark ? "#f0948a" : "#9a2b23",
      colorWarning: dark ? "#e6c254" : "#8a6400",
      colorSuccess: dark ? "#a9c79a" : "#3f6330",
      colorTextBase: ink,
      colorBgBase: dark ? "#1f1b16" : "#fbf7ec",
      colorBgContainer: dark ? "#29241d" : "#fffdf6",
      colorBgElevated: dark ? "#2f2921" : "#fffdf6",
      colorBorder: dark ? "#5d5241" : "#b9a888",
      colorBorderSecondary: dark ? "#3d362b" : "#ddd0b4",
      // 5.5 : 1 and more on the ground of a field (WCAG 2.2, 1.4.3 asks for 4.5).
      colorTextPlaceholder: dark ? "#b5a78e" : "#6f624f",
      colorTextLightSolid: dark ? "#1f1b16" : "#fbf7ec",
      fontFamily: "'Literata Variable', Georgia, serif",
      fontSize: 15,
      borderRadius: 2,
      controlHeight: 36,
      wireframe: false,
    },
    components: {
      Segmented: {
        trackBg: dark ? "#2b261f" : "#ece1c8",
        itemSelectedBg: dark ? "#4a4032" : "#fffdf6",
        itemColor: ink,
      },
      Select: {
        optionSelectedBg: dark ? "#4a4032" : "#ece1c8",
        optionActiveBg: dark ? "#38301f" : "#f5eeda",
        controlItemBgActiveHover: dark ? "#54492f" : "#e4d6b4",
      },
      Button: { primaryShadow: "none", defaultShadow: "none", fontWeight: 600 },
      Tooltip: { colorBgSpotlight: dark ? "#4a4032" : "#3a2a1c", colorTextLightSolid: "#fbf7ec" },
    },
  };
}
