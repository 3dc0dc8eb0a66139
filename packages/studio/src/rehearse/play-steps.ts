import type { FormDefinition, RehearsalStep } from "@bibliotope/core/form";
import type { RenderedForm } from "@bibliotope/kit";
import { CannotDrive, type FormDriver } from "@bibliotope/kit/testing";
import type { KeptRehearsal } from "@bibliotope/wire";
import { sentBy, statesOf } from "./sent-by.ts";
import { type RunResult, resultOf } from "./use-runs.ts";

/**
 * Plays a rehearsal to a form that is bound by the kit, as a person would go through it.
 * @param onStep called with the index of the step that is being done
 * @returns what came of it; a step that could not be done is part of that
 */
export async function playRehearsal(
  driver: FormDriver,
  made: RenderedForm,
  definition: FormDefinition,
  rehearsal: KeptRehearsal,
  onStep: (step: number) => void,
): Promise<RunResult> {
  let at = 0;
  const failed = await playSteps(driver, made, rehearsal.steps, (step) => {
    at = step;
    onStep(step);
  }).then(
    () => undefined,
    (error: unknown) => {
      if (error instanceof CannotDrive) return { step: at, words: error.message };
      throw error;
    },
  );
  return resultOf(definition, rehearsal, made.binding.values(), statesOf(sentBy(made, definition)), failed);
}

/** @throws CannotDrive with words, when a step waits for something in vain */
async function playSteps(
  driver: FormDriver,
  { form, map }: RenderedForm,
  steps: readonly RehearsalStep[],
  onStep: (step: number) => void,
): Promise<void> {
  driver.attach(form);
  for (const [place, step] of steps.entries()) {
    onStep(place);
    if (step.do === "point" && !map) throw new CannotDrive("the form has no map");
    await playStep(driver, step);
  }
  await driver.settled();
}

function playStep(driver: FormDriver, step: RehearsalStep): Promise<void> {
  switch (step.do) {
    case "type":
      return driver.type(step.field, step.text);
    case "leave":
      return driver.leave(step.field);
    case "select":
      return driver.select(step.field, step.value);
    case "take":
      return driver.takeSuggestion(step.field, step.line);
    case "choose":
      return driver.chooseMatch(step.address, step.line);
    case "keep":
      return driver.keepTyped(step.address);
    case "press":
      return driver.press(step.field);
    case "point":
      return driver.pointAt({ ...step.at, address: step.address });
  }
}
