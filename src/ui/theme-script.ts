export const THEME_KEY = "pelota.theme";

/** Runs before the first paint: the saved theme, or what the device asks for. */
export const THEME_SCRIPT = `try{var t=localStorage.getItem("${THEME_KEY}")||(matchMedia("(prefers-color-scheme: light)").matches?"daylight":"dim");document.documentElement.dataset.theme=t}catch(e){};`;
