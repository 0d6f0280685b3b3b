import "@fontsource-variable/archivo/wdth.css";
import "@fontsource-variable/instrument-sans";
import { createRoot } from "react-dom/client";
import { answered } from "./api/answers";
import { claimTab } from "./api/installation";
import { App } from "./app/App";
import "./app/base.css";
import "./app/layout.css";

const root = document.getElementById("root");
if (root === null) throw new Error("the page has no root element");
// what is typed is kept when its field is left: leaving the page, or the place, leaves the field
const leaveField = () => {
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
};
addEventListener("pagehide", leaveField);
addEventListener("beforeunload", leaveField);
addEventListener("online", answered);
await claimTab();
createRoot(root).render(<App />);
