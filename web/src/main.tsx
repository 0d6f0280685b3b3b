import "@fontsource-variable/archivo/wdth.css";
import "@fontsource-variable/instrument-sans";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import "./app/base.css";
import "./app/layout.css";

const root = document.getElementById("root");
if (root === null) throw new Error("the page has no root element");
createRoot(root).render(<App />);
