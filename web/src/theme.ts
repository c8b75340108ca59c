import { createTheme, type MantineColorsTuple } from "@mantine/core";

const teal: MantineColorsTuple = [
  "#e6f2f0",
  "#cfe4e1",
  "#a2c9c4",
  "#6fada6",
  "#3f8f88",
  "#1d7570",
  "#0f5f5f",
  "#0c4f50",
  "#083e40",
  "#052d2f",
];

const gray: MantineColorsTuple = [
  "#f3f6f1",
  "#e6ebe5",
  "#d8dfd8",
  "#c6d0c8",
  "#b2beb5",
  "#8f9d95",
  "#6b7a74",
  "#55635f",
  "#3a4845",
  "#1d2b2c",
];
const dark: MantineColorsTuple = [
  "#e4eae5",
  "#c3cdc8",
  "#a0aeaa",
  "#74837f",
  "#4f5d5a",
  "#3a4845",
  "#26312f",
  "#1d2b2c",
  "#161e1e",
  "#0f1616",
];

export const theme = createTheme({
  primaryColor: "teal",
  // white text on a filled button needs 4.5:1 in both schemes, which shade 4 does not give
  primaryShade: { light: 6, dark: 5 },
  colors: { teal, gray, dark },
  black: "#1d2b2c",
  fontFamily: '"Archivo Variable", sans-serif',
  headings: { fontFamily: '"Archivo Variable", sans-serif', fontWeight: "640" },
  defaultRadius: 3,
  fontSizes: { xs: "11.5px", sm: "13px", md: "14px", lg: "16px", xl: "20px" },
  components: {
    Button: { defaultProps: { size: "xs" } },
    TextInput: { defaultProps: { size: "xs" } },
    NumberInput: { defaultProps: { size: "xs", hideControls: true } },
    // a page of thirty selects would hold hundreds of options that nobody has opened
    Combobox: { defaultProps: { keepMounted: false } },
    Select: { defaultProps: { size: "xs", checkIconPosition: "right" } },
    MultiSelect: { defaultProps: { size: "xs" } },
    Textarea: { defaultProps: { size: "sm" } },
    PasswordInput: { defaultProps: { size: "sm" } },
    Checkbox: { defaultProps: { size: "xs" } },
    SegmentedControl: { defaultProps: { size: "xs" } },
    Tooltip: { defaultProps: { openDelay: 350, withArrow: false } },
  },
});
