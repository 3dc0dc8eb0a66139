import {
  addressesOf,
  type FormDefinition,
  REGISTER_WAYS,
  type RegisterWay,
  type ServiceRule,
  type ServiceStart,
} from "@bibliotope/core/form";
import type { ServiceSummary } from "@bibliotope/wire";
import { Link } from "react-router";
import { useServicesQuery } from "../state/services-api.ts";
import { Button } from "../ui/Button.tsx";
import { Choices, INPUT, Labelled } from "./Labelled.tsx";

interface ServicesPanelProps {
  definition: FormDefinition;
  change: (services: ServiceRule[] | undefined) => void;
}

const WAY_WORDS: Readonly<Record<RegisterWay, string>> = {
  take: "use its spelling",
  ask: "ask the user, showing both",
  note: "only show it",
};

/** Which outside services a form asks, when, and with what. */
export function ServicesPanel({ definition, change }: ServicesPanelProps) {
  const { data: known = [] } = useServicesQuery();
  const rules = definition.services ?? [];
  const free = known.filter(({ name }) => !rules.some(({ ask }) => ask === name));
  const set = (at: number, rule: ServiceRule | undefined) => {
    const next = rules.flatMap((existing, i) => (i === at ? (rule ?? []) : existing));
    change(next.length ? next : undefined);
  };
  return (
    <section aria-label="Outside services" className="mt-7 border-t border-rule pt-4">
      <h2 className="font-serif text-[18px] font-semibold">Outside services</h2>
      {rules.map((rule, i) => (
        <Rule
          key={rule.ask}
          rule={rule}
          definition={definition}
          service={known.find(({ name }) => name === rule.ask)}
          set={(next) => set(i, next)}
        />
      ))}
      {free.length ? (
        <Labelled label={rules.length ? "Add another service" : "Add a service"}>
          {(id) => (
            <select
              id={id}
              className={`${INPUT} mt-1`}
              value=""
              onChange={({ target }) => {
                const service = free.find(({ name }) => name === target.value);
                if (service) change([...rules, firstRule(service, definition)]);
              }}
            >
              <option value="">Choose a service</option>
              {free.map(({ name, title }) => (
                <option key={name} value={name}>
                  {title}
                </option>
              ))}
            </select>
          )}
        </Labelled>
      ) : (
        <p className="mt-2 text-[13px] text-quiet">
          {known.length ? "The form uses all services." : "There are no services yet."}{" "}
          <Link to="/services" className="underline">
            Add one
          </Link>
        </p>
      )}
    </section>
  );
}

interface RuleProps {
  rule: ServiceRule;
  definition: FormDefinition;
  service: ServiceSummary | undefined;
  set: (rule: ServiceRule | undefined) => void;
}

function Rule({ rule, definition, service, set }: RuleProps) {
  const put = (to: Partial<ServiceRule>) => {
    const kept = Object.entries({ ...rule, ...to }).filter(([, value]) => value !== undefined && value !== "");
    set(Object.fromEntries(kept) as unknown as ServiceRule);
  };
  const addresses = addressesOf(definition);
  const lines = service?.values.filter(({ kind }) => kind === "line") ?? [];
  return (
    <fieldset className="mt-3 grid gap-3 border-b border-rule pb-4">
      <legend className="flex w-full items-baseline gap-3">
        <span className="font-semibold text-slate">{rule.ask}</span>
        <span className="flex-1 text-[13px] text-quiet">
          {service ? service.title : "there is no service with this name"}
        </span>
        <button type="button" className="text-[13px] underline" onClick={() => set(undefined)}>
          Remove
        </button>
      </legend>
      <Labelled label="Display name">
        {(id) => (
          <input
            id={id}
            className={INPUT}
            placeholder="the courier"
            value={rule.called ?? ""}
            maxLength={60}
            onChange={({ target }) => put({ called: target.value })}
          />
        )}
      </Labelled>
      <When rule={rule} definition={definition} put={put} />
      {addresses.length > 1 ? (
        <Choices
          label="Address"
          value={rule.address ?? ""}
          options={addresses.map((name) => [name, name || "first address"] as const)}
          onChange={(address) => put({ address: address || undefined })}
        />
      ) : null}
      {service?.inputs.map(({ name, required }) => (
        <Labelled key={name} label={`${name}${required ? "" : " (optional)"}`}>
          {(id) => (
            <input
              id={id}
              className={`${INPUT} font-mono text-[13px]`}
              placeholder="{town} or {field.name}"
              value={rule.with[name] ?? ""}
              onChange={({ target }) => {
                const { [name]: _, ...others } = rule.with;
                put({ with: target.value ? { ...others, [name]: target.value } : others });
              }}
            />
          )}
        </Labelled>
      ))}
      {service?.isRegister ? (
        <Choices
          label="If its spelling of the address differs"
          value={rule.register ?? "ask"}
          options={REGISTER_WAYS.map((way) => [way, WAY_WORDS[way]] as const)}
          onChange={(register) => put({ register })}
        />
      ) : null}
      {lines.length ? (
        <Choices
          label="Drawn on the map"
          value={rule.draws?.line ?? ""}
          options={[["", "nothing"], ...lines.map(({ name }) => [name, name] as const)]}
          onChange={(line) => put({ draws: line ? { ...rule.draws, line } : undefined })}
        />
      ) : null}
    </fieldset>
  );
}

function When({
  rule: { ask, when },
  definition,
  put,
}: Pick<RuleProps, "rule" | "definition"> & { put: (to: Partial<ServiceRule>) => void }) {
  const { fields, services = [] } = definition;
  const buttons = fields.filter(({ kind, task }) => kind === "button" && task === "ask");
  const left = fields.filter(({ kind }) => kind === "text" || kind === "choice" || kind === "country");
  const complete = fields.filter(
    ({ kind }) => kind !== "button" && kind !== "map" && kind !== "still" && kind !== "search",
  );
  const others = services.filter((other) => other.ask !== ask);
  const starts = {
    chosen: { on: "chosen" },
    leaving: left[0] && { on: "leaving", field: left[0].name },
    complete: complete[0] && { on: "complete", fields: [complete[0].name] },
    button: buttons[0] && { on: "button", field: buttons[0].name },
    answered: others[0] && { on: "answered", service: others[0].ask },
  } as const satisfies Record<ServiceStart["on"], ServiceStart | undefined>;
  const words = {
    chosen: "an address is found",
    leaving: "a field loses focus",
    complete: "fields are filled in",
    button: "a button is clicked",
    answered: "another service has answered",
  };
  const options = (Object.keys(words) as ServiceStart["on"][]).filter((on) => starts[on] || on === when.on);
  return (
    <>
      <Choices
        label="Call it when"
        value={when.on}
        options={options.map((on) => [on, words[on]] as const)}
        onChange={(on) => starts[on] && put({ when: starts[on] as ServiceStart })}
      />
      {when.on === "leaving" || when.on === "button" ? (
        <Choices
          label={when.on === "leaving" ? "Field" : "Button"}
          value={when.field}
          options={(when.on === "leaving" ? left : buttons).map(({ name, label }) => [name, label] as const)}
          onChange={(field) => put({ when: { on: when.on, field } })}
        />
      ) : null}
      {when.on === "answered" ? (
        <Choices
          label="Other service"
          value={when.service}
          options={others.map((other) => [other.ask, other.ask] as const)}
          onChange={(service) => put({ when: { on: "answered", service } })}
        />
      ) : null}
      {when.on === "complete" ? (
        <fieldset>
          <legend className="mb-1 text-[12.5px] text-quiet">Fields</legend>
          <div className="flex flex-wrap gap-1.5">
            {complete.map(({ name, label }) => {
              const isIn = when.fields.includes(name);
              const next = isIn ? when.fields.filter((existing) => existing !== name) : [...when.fields, name];
              return (
                <Button
                  key={name}
                  aria-pressed={isIn}
                  className="!h-[28px] text-[13px] aria-pressed:border-ink aria-pressed:!bg-ink aria-pressed:!text-page"
                  onClick={() => next.length && put({ when: { on: "complete", fields: next } })}
                >
                  {label}
                </Button>
              );
            })}
          </div>
        </fieldset>
      ) : null}
    </>
  );
}

/** A rule for a service as it is most likely meant: its inputs are parts of the same name. */
function firstRule({ name, inputs, isRegister }: ServiceSummary, definition: FormDefinition): ServiceRule {
  const names = new Set([
    "house",
    "street",
    "town",
    "postcode",
    "district",
    "county",
    "region",
    "unit",
    "lat",
    "lon",
    "position",
  ]);
  const patterns = inputs.flatMap(({ name: input }): [string, string][] => {
    const wanted = input.toLowerCase();
    if (wanted === "country") return [[input, "{country.code}"]];
    if (names.has(wanted)) return [[input, `{${wanted}}`]];
    return definition.fields.some((field) => field.name === input) ? [[input, `{field.${input}}`]] : [];
  });
  return {
    ask: name,
    when: { on: "chosen" },
    with: Object.fromEntries(patterns),
    ...(isRegister ? { register: "ask" as const } : {}),
  };
}
