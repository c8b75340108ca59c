import { Button, useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { strings } from "./strings";

/** Light or dark. */
export function Appearance() {
  const { setColorScheme } = useMantineColorScheme();
  const now = useComputedColorScheme("light");
  const other = now === "light" ? "dark" : "light";
  return (
    <Button
      variant="default"
      onClick={() => {
        setColorScheme(other);
      }}
    >
      {other === "dark" ? strings.dark : strings.light}
    </Button>
  );
}
