import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import "./app/tokens.css";

const dark = window.matchMedia("(prefers-color-scheme: dark)");
const follow = () => document.documentElement.classList.toggle("bench-dark", dark.matches);
dark.addEventListener("change", follow);
follow();

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
