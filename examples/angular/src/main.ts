import { provideZonelessChangeDetection } from "@angular/core";
import { bootstrapApplication } from "@angular/platform-browser";
import { defineElements } from "@bibliotope/kit/elements";
import { App } from "./app";

defineElements();
void bootstrapApplication(App, { providers: [provideZonelessChangeDetection()] });
