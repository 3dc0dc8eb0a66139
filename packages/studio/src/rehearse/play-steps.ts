import type { RehearsalStep } from "@bibliotope/core/form";
import type { RenderedForm } from "@bibliotope/kit";
import { CannotDrive, type FormDriver } from "@bibliotope/kit/testing";

/**
 * Plays a person: does the steps of a rehearsal to a form that is bound by the kit.
 * @param told the step that is being done, by its place
 * @throws CannotDrive with words, when a step waits for something in vain
 */
export async function playSteps(
  driver: FormDriver,
  { form, map }: RenderedForm,
  steps: readonly RehearsalStep[],
  told: (step: number) => void,
): Promise<void> {
  driver.attach(form);
  for (const [place, step] of steps.entries()) {
    told(place);
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
