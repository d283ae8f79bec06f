"use client";

import { Moon, Sun } from "lucide-react";
import { useEffect, useState } from "react";
import { IconButton } from "./button";
import { THEME_KEY } from "./theme-script";

/** Switches between Dim bay and Daylight. */
export function ThemeSwitch() {
  const [theme, setTheme] = useState<string>();
  useEffect(() => setTheme(document.documentElement.dataset.theme ?? "dim"), []);
  const other = theme === "daylight" ? "dim" : "daylight";
  return (
    <IconButton
      label={other === "dim" ? "Dim bay" : "Daylight"}
      onClick={() => {
        document.documentElement.dataset.theme = other;
        localStorage.setItem(THEME_KEY, other);
        setTheme(other);
      }}
    >
      {theme === "daylight" ? <Moon aria-hidden size={20} /> : <Sun aria-hidden size={20} />}
    </IconButton>
  );
}
