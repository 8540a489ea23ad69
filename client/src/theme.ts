import { createTheme } from "@mui/material/styles";

export const sans = '"Barlow", "Arial Narrow", Arial, sans-serif';
export const narrow = '"Barlow Semi Condensed", "Arial Narrow", Arial, sans-serif';

/** MUI, quiet: square, flat, inked. The colours that mean something live in app.css. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: "data" },
  colorSchemes: {
    light: {
      palette: {
        primary: { main: "#14212b" },
        background: { default: "#eef2f4", paper: "#eef2f4" },
        text: { primary: "#14212b", secondary: "#46565f" },
      },
    },
    dark: {
      palette: {
        primary: { main: "#e4ecf0" },
        background: { default: "#0e161c", paper: "#0e161c" },
        text: { primary: "#e4ecf0", secondary: "#a3b3bc" },
      },
    },
  },
  shape: { borderRadius: 0 },
  typography: {
    fontFamily: sans,
    fontSize: 14,
    button: { textTransform: "none", fontWeight: 600, letterSpacing: 0 },
  },
  components: {
    MuiPaper: { styleOverrides: { root: { backgroundImage: "none" } } }, // flat in the dark too
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, color: "inherit" },
      styleOverrides: {
        root: {
          padding: "6px 12px",
          minHeight: 36,
          lineHeight: 1.2,
          border: "1.5px solid currentColor",
          "&:hover": { backgroundColor: "var(--press)" },
        },
      },
    },
    MuiInput: {
      styleOverrides: {
        root: {
          fontSize: "inherit",
          lineHeight: "inherit",
          width: "100%",
          "&::before": { borderBottomColor: "var(--hair)" },
          "&:hover:not(.Mui-disabled, .Mui-error)::before": { borderBottom: "1px solid var(--ink)" },
          "&::after": { borderBottomWidth: 1.5 },
        },
        input: { padding: "4px 2px 3px", height: "auto" },
      },
    },
    MuiNativeSelect: {
      styleOverrides: {
        select: { minWidth: 0, textOverflow: "ellipsis", "&:focus": { backgroundColor: "transparent" } },
        icon: { color: "var(--ink2)", right: -4 },
      },
    },
    MuiTableCell: {
      styleOverrides: {
        root: { font: "inherit", color: "inherit", padding: "5px 12px 5px 0", borderColor: "var(--hair)" },
        head: { fontSize: 13, color: "var(--ink2)", borderBottom: "1.5px solid var(--ink)" },
        footer: { fontWeight: 600 },
      },
    },
    MuiToggleButtonGroup: { styleOverrides: { root: { gap: 2 } } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          // a word underlined once it is the one, as the rest of the page has it
          border: 0,
          borderBottom: "2.5px solid transparent",
          padding: "4px 6px",
          minHeight: 30,
          fontSize: "inherit",
          fontWeight: 400,
          lineHeight: 1.2,
          color: "var(--ink2)",
          "@media (max-width: 900px)": { minHeight: 44 },
          "&.Mui-selected, &.Mui-selected:hover": {
            background: "none",
            borderBottomColor: "var(--ink)",
            color: "var(--ink)",
            fontWeight: 600,
          },
        },
      },
    },
    MuiCheckbox: { defaultProps: { size: "small" }, styleOverrides: { root: { padding: 6 } } },
    MuiRadio: { defaultProps: { size: "small" }, styleOverrides: { root: { padding: 6 } } },
    MuiFormControlLabel: {
      styleOverrides: {
        root: { marginLeft: -6, alignItems: "flex-start" },
        label: { fontSize: "inherit", padding: "4px 0" },
      },
    },
    MuiAutocomplete: {
      styleOverrides: {
        root: { minWidth: 0 },
        popper: { minWidth: "min(300px, 80vw)" },
        paper: { border: "1.5px solid var(--ink)", boxShadow: "none", backgroundImage: "none" },
        listbox: { padding: 0, maxHeight: "min(50vh, 420px)" },
        option: { fontSize: "inherit", padding: "5px 8px !important", minHeight: "34px !important" },
        endAdornment: { right: "-4px !important" },
        popupIndicator: { color: "var(--ink2)", padding: 2 },
        inputRoot: { paddingRight: "22px !important" },
        input: { textOverflow: "ellipsis", paddingLeft: "2px !important" },
      },
    },
    MuiSnackbarContent: {
      styleOverrides: {
        root: { background: "var(--ink)", color: "var(--paper)", boxShadow: "none", fontSize: "inherit" },
      },
    },
    MuiSlider: {
      defaultProps: { size: "small", color: "primary" },
      styleOverrides: {
        // a tape: ticks along it, a pointer on it
        root: { padding: "9px 0", height: 9 },
        rail: {
          opacity: 1,
          height: 9,
          borderRadius: 0,
          background:
            "repeating-linear-gradient(90deg, var(--hair) 0 1px, transparent 1px 6px) bottom / 100% 6px no-repeat, linear-gradient(var(--hair), var(--hair)) bottom / 100% 1px no-repeat",
        },
        track: { border: 0, height: 2.5, borderRadius: 0, top: "auto", bottom: 9, transform: "none" },
        thumb: {
          width: 9,
          height: 18,
          borderRadius: 0,
          boxShadow: "none",
          clipPath: "polygon(0 0, 100% 0, 100% 62%, 50% 100%, 0 62%)",
          "&::before": { boxShadow: "none" },
          "&:hover, &.Mui-focusVisible": { boxShadow: "0 0 0 4px var(--press)" },
        },
      },
    },
  },
});
