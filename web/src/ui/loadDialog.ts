/** What a dialog is drawn by, which nothing needs before one is opened. */
export async function loadDialog() {
  return { default: (await import("@mui/material/Dialog")).default };
}
