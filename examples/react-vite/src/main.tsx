import { BibliotopeProvider } from "@bibliotope/kit/react";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./App";

const { BIBLIOTOPE_URL, BIBLIOTOPE_WEB_KEY } = import.meta.env;

createRoot(document.querySelector("#root")!).render(
  <StrictMode>
    <BibliotopeProvider url={BIBLIOTOPE_URL} webKey={BIBLIOTOPE_WEB_KEY}>
      <App />
    </BibliotopeProvider>
  </StrictMode>,
);
