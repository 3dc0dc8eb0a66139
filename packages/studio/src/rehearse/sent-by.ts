import { type AddressState, type FormDefinition, goingOut } from "@bibliotope/core/form";
import type { RenderedForm } from "@bibliotope/kit";

/** What a form would send now; what the browser itself would. */
export function sentBy({ form, binding }: RenderedForm, definition: FormDefinition): ReturnType<typeof goingOut> {
  const sent = [...new FormData(form)].map(([name, value]) => [name, String(value)] as const);
  return goingOut(definition, binding.state, binding.values(), sent);
}

/** What each address of it would be, by name. */
export function statesOf({ addresses }: ReturnType<typeof goingOut>): Record<string, AddressState> {
  return Object.fromEntries(addresses.map(({ address, state }) => [address, state]));
}
