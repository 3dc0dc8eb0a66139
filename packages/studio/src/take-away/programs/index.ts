import type { FormDefinition } from "@bibliotope/core/form";
import { csharpOf } from "./csharp.ts";
import { dartOf } from "./dart.ts";
import { goOf } from "./go.ts";
import { javaOf } from "./java.ts";
import { kotlinOf } from "./kotlin.ts";
import { type Program, programOf } from "./model.ts";
import { pythonOf } from "./python.ts";
import { swiftOf } from "./swift.ts";

/** Languages in which a program's lookups are handed out: what each is called, its file, and how it is written. */
export const PROGRAM_LANGUAGES = {
  python: { name: "Python", file: "addresses.py", write: pythonOf },
  java: { name: "Java", file: "AddressLookups.java", write: javaOf },
  csharp: { name: "C#", file: "AddressLookups.cs", write: csharpOf },
  swift: { name: "Swift", file: "AddressLookups.swift", write: swiftOf },
  kotlin: { name: "Kotlin", file: "AddressLookups.kt", write: kotlinOf },
  dart: { name: "Dart", file: "address_lookups.dart", write: dartOf },
  go: { name: "Go", file: "addresses.go", write: goOf },
} as const satisfies Record<string, { name: string; file: string; write: (program: Program) => string }>;
export type ProgramLanguage = keyof typeof PROGRAM_LANGUAGES;

/** The lookups of a form as code of a program that is no page. @param service origin of the service */
export const programCode = (definition: FormDefinition, service: string, language: ProgramLanguage): string =>
  PROGRAM_LANGUAGES[language].write(programOf(definition, service));
